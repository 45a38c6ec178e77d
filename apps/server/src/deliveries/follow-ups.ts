import type { FollowUp, MailDraft } from '@velarium/contract';
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
    /** Gives a copy of a campaign what follows the answers to the forms of the first. A site has no other's pictures. */
    async copy(from: string, to: string): Promise<void> {
      const rows: { form: string; document: FollowUp; isSameSite: boolean }[] = await db.query(
        `SELECT form, document, copied.site_id = first.site_id AS "isSameSite"
           FROM follow_up JOIN campaign first ON first.id = campaign_id JOIN campaign copied ON copied.id = $2
          WHERE campaign_id = $1`,
        [from, to],
      );
      for (const { form, document, isSameSite } of rows)
        await this.save(to, form, isSameSite ? document : withoutPictures(document));
    },
    async save(campaignId: string, form: string, followUp: FollowUp): Promise<void> {
      await db.query(
        `INSERT INTO follow_up (campaign_id, form, document) VALUES ($1, $2, $3)
         ON CONFLICT (campaign_id, form) DO UPDATE SET document = $3, updated_at = now()`,
        [campaignId, form, JSON.stringify(followUp)],
      );
    },
  };
}
export type FollowUps = ReturnType<typeof createFollowUps>;

function withoutPictures({ confirmation, welcome, notice }: FollowUp): FollowUp {
  const bare = <Of extends { readonly mail: MailDraft }>(one: Of): Of => ({
    ...one,
    mail: { ...one.mail, picture: null },
  });
  return { confirmation: confirmation && bare(confirmation), welcome: welcome.map(bare), notice };
}
