import type { CampaignNumbers } from '@velarium/contract';
import type { DataSource } from 'typeorm';

const NOTHING: CampaignNumbers = { showings: 0, visitors: 0, conversions: 0, converters: 0 };

/** Reads the rollups that intake keeps; never the raw events. */
export function createResultService(db: DataSource) {
  return {
    /** What a message may say of itself to visitors: how many signed up, and how often it was passed on. */
    async publicCounts(siteId: string, campaignId: string): Promise<{ readers: number; shares: number }> {
      const [row]: [{ readers: string; shares: string }] = await db.query(
        `SELECT coalesce(sum(first_visitors) FILTER (WHERE kind = 'converted'), 0) AS readers,
                coalesce(sum(events) FILTER (WHERE kind = 'shared'), 0) AS shares
           FROM campaign_hour JOIN campaign ON campaign.id = campaign_id
          WHERE campaign_id = $2 AND site_id = $1`,
        [siteId, campaignId],
      );
      return { readers: Number(row.readers), shares: Number(row.shares) };
    },

    /** Numbers since each campaign began. Visitors are unique over the whole time. */
    async numbers(campaignIds: readonly string[]): Promise<(campaignId: string) => CampaignNumbers> {
      const rows: { campaign_id: string; kind: string; events: string; first_visitors: string }[] =
        await db.query(
          `SELECT campaign_id, kind, sum(events) AS events, sum(first_visitors) AS first_visitors
           FROM campaign_hour WHERE campaign_id = ANY($1::uuid[]) AND kind IN ('shown', 'converted')
          GROUP BY campaign_id, kind`,
          [campaignIds],
        );
      const byId = new Map<string, CampaignNumbers>();
      for (const row of rows) {
        const numbers = byId.get(row.campaign_id) ?? NOTHING;
        const [events, visitors] = [Number(row.events), Number(row.first_visitors)];
        byId.set(
          row.campaign_id,
          row.kind === 'shown'
            ? { ...numbers, showings: events, visitors }
            : { ...numbers, conversions: events, converters: visitors },
        );
      }
      return (campaignId) => byId.get(campaignId) ?? NOTHING;
    },
  };
}
export type ResultService = ReturnType<typeof createResultService>;
