import type { Presence } from '@velarium/contract';
import type { DataSource } from 'typeorm';

/** Who has not been heard of for this long has left. */
const HERE_SECONDS = 25;

/** Who has a campaign open. Callers have made sure that the campaign is the workspace's. */
export function createPresence(db: DataSource) {
  return {
    /** Marks somebody as here and tells who else is, by name. */
    async mark(campaignId: string, accountId: string): Promise<Presence['others']> {
      await db.query(
        `INSERT INTO presence (campaign_id, account_id) VALUES ($1, $2)
         ON CONFLICT (campaign_id, account_id) DO UPDATE SET seen_at = now()`,
        [campaignId, accountId],
      );
      return db.query(
        `SELECT a.id AS "accountId", a.name FROM presence p JOIN account a ON a.id = p.account_id
          WHERE p.campaign_id = $1 AND p.account_id <> $2 AND p.seen_at > now() - make_interval(secs => $3)
          ORDER BY a.name`,
        [campaignId, accountId, HERE_SECONDS],
      );
    },
    async leave(campaignId: string, accountId: string): Promise<void> {
      await db.query('DELETE FROM presence WHERE campaign_id = $1 AND account_id = $2', [
        campaignId,
        accountId,
      ]);
    },
  };
}
