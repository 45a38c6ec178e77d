import type { CampaignDocument, EarlierDraft } from '@velarium/contract';
import { DRAFTS_KEPT_SECONDS, THINNINGS } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound } from '../infra/problem.ts';
import { CampaignRevisionEntity } from './entities.ts';

/** Earlier drafts that are listed at most, the newest. */
const LISTED = 2000;

/** The law of {@link THINNINGS} for the database: which stretch a draft is the last of. */
const STRETCH = `CASE ${[...THINNINGS]
  .reverse()
  .map(
    ({ fromSeconds, everySeconds }) =>
      `WHEN $1::timestamptz - saved_at >= interval '${fromSeconds} seconds'
       THEN '${everySeconds} ' || floor(extract(epoch FROM saved_at) / ${everySeconds})::bigint`,
  )
  .join(' ')} ELSE 'at ' || revision END`;

/** Earlier drafts. Who asks for them has made sure that the campaign is theirs. */
export function createRevisions(db: DataSource) {
  return {
    async keep(
      manager: EntityManager,
      by: string,
      campaignId: string,
      revision: number,
      draft: CampaignDocument,
    ): Promise<void> {
      await manager
        .getRepository(CampaignRevisionEntity)
        .insert({ campaignId, revision, draft, savedBy: by } as never);
    },

    /** When a draft was saved and by whom, the older first. */
    async list(campaignId: string): Promise<EarlierDraft[]> {
      const rows: { revision: number; at: Date; byName: string | null }[] = await db.query(
        `SELECT * FROM (
           SELECT revision, saved_at AS at, account.name AS "byName"
             FROM campaign_revision LEFT JOIN account ON account.id = saved_by
            WHERE campaign_id = $1 ORDER BY revision DESC LIMIT ${LISTED}) AS newest ORDER BY revision`,
        [campaignId],
      );
      return rows.map(({ revision, at, byName }) => ({
        revision,
        at: at.toISOString(),
        byName: byName ?? '',
      }));
    },

    async document(campaignId: string, revision: number): Promise<CampaignDocument> {
      const row = await db.getRepository(CampaignRevisionEntity).findOneBy({ campaignId, revision });
      if (!row) throw notFound('earlier draft');
      return row.draft;
    },

    /** Leaves ever fewer drafts of older days; what a draft says now, and what was published, stays. */
    async thin(now: Date): Promise<void> {
      await db.transaction(async (manager) => {
        await manager.query(`SET LOCAL statement_timeout = '10min'`);
        await manager.query(
          `DELETE FROM campaign_revision AS old USING (
             SELECT campaign_id, revision, saved_at,
                    row_number() OVER (PARTITION BY campaign_id, ${STRETCH} ORDER BY revision DESC) AS nth
               FROM campaign_revision) AS earlier
             JOIN campaign ON campaign.id = earlier.campaign_id
            WHERE old.campaign_id = earlier.campaign_id AND old.revision = earlier.revision
              AND earlier.revision NOT IN (campaign.revision, coalesce(campaign.published_revision, -1))
              AND (nth > 1 OR earlier.saved_at < $1::timestamptz - interval '${DRAFTS_KEPT_SECONDS} seconds')`,
          [now],
        );
      });
    },
  };
}
