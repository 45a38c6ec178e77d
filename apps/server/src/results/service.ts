import type { CampaignNumbers } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import { countEvents } from './count-events.ts';

const NOTHING: CampaignNumbers = { showings: 0, visitors: 0, conversions: 0, converters: 0 };

/** Reads the rollups that intake keeps; never the raw events. */
export function createResultService(db: DataSource) {
  return {
    /** What a message may say of itself to visitors: how many signed up, and how often it was passed on. */
    async publicCounts(siteId: string, campaignId: string): Promise<{ readers: number; shares: number }> {
      await countEvents(db);
      const [row]: { readers: string; shares: string }[] = await db.query(
        `SELECT (SELECT coalesce(sum(visitors), 0) FROM reach_day
                  WHERE campaign_id = campaign.id AND kind = 'converted' AND before = '-infinity') AS readers,
                (SELECT coalesce(sum(events), 0) FROM campaign_day
                  WHERE campaign_id = campaign.id AND kind = 'shared') AS shares
           FROM campaign WHERE id = $2 AND site_id = $1`,
        [siteId, campaignId],
      );
      return { readers: Number(row?.readers ?? 0), shares: Number(row?.shares ?? 0) };
    },

    /** Numbers since each campaign began. Visitors are unique over the whole time. */
    async numbers(campaignIds: readonly string[]): Promise<(campaignId: string) => CampaignNumbers> {
      await countEvents(db);
      const rows: { campaign_id: string; kind: string; events: string; visitors: string }[] = await db.query(
        `SELECT campaign_id, kind, sum(events) AS events, sum(visitors) AS visitors FROM (
           SELECT campaign_id, kind, events, 0 AS visitors FROM campaign_day
            WHERE campaign_id = ANY($1::uuid[]) AND kind IN ('shown', 'converted')
           UNION ALL
           SELECT campaign_id, kind, 0, visitors FROM reach_day
            WHERE campaign_id = ANY($1::uuid[]) AND kind IN ('shown', 'converted') AND before = '-infinity') AS part
          GROUP BY campaign_id, kind`,
        [campaignIds],
      );
      const byId = new Map<string, CampaignNumbers>();
      for (const row of rows) {
        const numbers = byId.get(row.campaign_id) ?? NOTHING;
        const [events, visitors] = [Number(row.events), Number(row.visitors)];
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
