import type { FollowUp } from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';

/** What happens after somebody has answered, form by form. Callers have made sure that the campaign is the workspace's. */
export function createFollowUps(db: DataSource) {
  return {
    async find(
      campaignId: string,
      form: string,
      manager: EntityManager = db.manager,
    ): Promise<FollowUp | undefined> {
      const [row]: { document: FollowUp }[] = await manager.query(
        'SELECT document FROM follow_up WHERE campaign_id = $1 AND form = $2',
        [campaignId, form],
      );
      return row?.document;
    },
    /** All of a campaign, by the form. */
    async of(campaignId: string): Promise<Record<string, FollowUp>> {
      const rows: { form: string; document: FollowUp }[] = await db.query(
        'SELECT form, document FROM follow_up WHERE campaign_id = $1 ORDER BY form',
        [campaignId],
      );
      return Object.fromEntries(rows.map(({ form, document }) => [form, document]));
    },
    async save(
      campaignId: string,
      form: string,
      followUp: FollowUp,
      manager: EntityManager = db.manager,
    ): Promise<void> {
      await manager.query(
        `INSERT INTO follow_up (campaign_id, form, document) VALUES ($1, $2, $3)
         ON CONFLICT (campaign_id, form) DO UPDATE SET document = $3, updated_at = now()`,
        [campaignId, form, JSON.stringify(followUp)],
      );
    },
  };
}
export type FollowUps = ReturnType<typeof createFollowUps>;
