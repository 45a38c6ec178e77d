import type { Lead } from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import type { SiteService } from '../sites/index.ts';
import { findAttachment, type NewAttachment, storeAttachment } from './attachments.ts';
import { LeadEntity, type LeadRow } from './entities.ts';

const LISTED = 500;

export function createPeopleService({ db, sites }: { db: DataSource; sites: SiteService }) {
  return {
    /** Stores a lead in the caller's transaction; one already stored under its id stays as it is. */
    async add(
      manager: EntityManager,
      lead: LeadRow,
      attachments: readonly Pick<NewAttachment, 'id' | 'bytes'>[] = [],
    ): Promise<void> {
      await manager
        .getRepository(LeadEntity)
        .createQueryBuilder()
        .insert()
        .values(lead as never)
        .orIgnore()
        .execute();
      for (const one of attachments)
        await storeAttachment(manager, { ...one, siteId: lead.siteId, leadId: lead.id });
    },

    /** What came with an answer, as WebP. */
    async attachment(workspaceId: string, siteId: string, id: string): Promise<Buffer> {
      await sites.get(workspaceId, siteId);
      return findAttachment(db, siteId, id);
    },

    /** The site's newest leads. */
    async list(workspaceId: string, siteId: string): Promise<Lead[]> {
      await sites.get(workspaceId, siteId);
      const rows: (LeadRow & { campaignName: string })[] = await db.query(
        `SELECT l.id, l.campaign_id AS "campaignId", c.name AS "campaignName", l.fields, l.consent_text AS "consentText",
                l.consented_at AS "consentedAt", l.page, l.submitted_at AS "submittedAt"
           FROM lead l JOIN campaign c ON c.id = l.campaign_id
          WHERE l.workspace_id = $1 AND l.site_id = $2 ORDER BY l.submitted_at DESC LIMIT $3`,
        [workspaceId, siteId, LISTED],
      );
      return rows.map((row) => ({
        ...row,
        consentedAt: row.consentedAt?.toISOString() ?? null,
        submittedAt: row.submittedAt.toISOString(),
      }));
    },
  };
}
export type PeopleService = ReturnType<typeof createPeopleService>;
