import type { CampaignNumbers } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import { countEvents } from './count-events.ts';

const NOTHING: CampaignNumbers = { showings: 0, visitors: 0, conversions: 0, converters: 0 };

/** Reads the rollups that intake keeps; never the raw events. */
export function createResultService(db: DataSource) {
  return {
    /** What a message may say of itself to visitors: how many signed up, and how often it was passed on, by each way. */
    async publicCounts(
      siteId: string,
      campaignId: string,
    ): Promise<{ readers: number; shares: number; ways: Record<string, number> }> {
      await countEvents(db);
      const [row]: { readers: string; shares: string; ways: Record<string, number> | null }[] =
        await db.query(
          `SELECT (SELECT coalesce(sum(converted), 0) FROM reach_day
                    WHERE campaign_id = campaign.id AND before = '-infinity') AS readers,
                  (SELECT coalesce(sum(shared), 0) FROM campaign_day WHERE campaign_id = campaign.id) AS shares,
                  (SELECT jsonb_object_agg(way, events) FROM shared_way WHERE campaign_id = campaign.id) AS ways
             FROM campaign WHERE id = $2 AND site_id = $1`,
          [siteId, campaignId],
        );
      return { readers: Number(row?.readers ?? 0), shares: Number(row?.shares ?? 0), ways: row?.ways ?? {} };
    },

    /** Numbers since each campaign began. Visitors are unique over the whole time. */
    async numbers(campaignIds: readonly string[]): Promise<(campaignId: string) => CampaignNumbers> {
      await countEvents(db);
      const rows: ({ id: string } & Record<keyof CampaignNumbers, string>)[] = await db.query(
        `WITH happened AS (
           SELECT campaign_id AS id, sum(shown) AS showings, sum(converted) AS conversions FROM campaign_day
            WHERE campaign_id = ANY($1::uuid[]) GROUP BY campaign_id),
         met AS (
           SELECT campaign_id AS id, sum(shown) AS visitors, sum(converted) AS converters FROM reach_day
            WHERE campaign_id = ANY($1::uuid[]) AND before = '-infinity' GROUP BY campaign_id)
         SELECT * FROM happened JOIN met USING (id)`,
        [campaignIds],
      );
      const byId = new Map(
        rows.map(({ id, showings, visitors, conversions, converters }): [string, CampaignNumbers] => [
          id,
          {
            showings: Number(showings),
            visitors: Number(visitors),
            conversions: Number(conversions),
            converters: Number(converters),
          },
        ]),
      );
      return (campaignId) => byId.get(campaignId) ?? NOTHING;
    },
  };
}
export type ResultService = ReturnType<typeof createResultService>;
