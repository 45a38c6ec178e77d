import { EntitySchema } from 'typeorm';

export interface LeadRow {
  /** The id of the event that brought it, so sending twice stores once. */
  id: string;
  workspaceId: string;
  siteId: string;
  campaignId: string;
  version: number;
  /** The message file the visitor had; `null` for answers from before it was sent along. */
  messageHash: string | null;
  visitor: string;
  /** Answers with the labels they were asked under. */
  fields: { label: string; value: string; attachment?: string }[];
  /** The exact words agreed to, taken from the published version. */
  consentText: string | null;
  consentedAt: Date | null;
  page: string;
  submittedAt: Date;
}
export const LeadEntity = new EntitySchema<LeadRow>({
  name: 'Lead',
  tableName: 'lead',
  columns: {
    id: { type: 'uuid', primary: true },
    workspaceId: { type: 'uuid', name: 'workspace_id' },
    siteId: { type: 'uuid', name: 'site_id' },
    campaignId: { type: 'uuid', name: 'campaign_id' },
    version: { type: 'integer' },
    messageHash: { type: 'text', name: 'message_hash', nullable: true },
    visitor: { type: 'uuid' },
    fields: { type: 'jsonb' },
    consentText: { type: 'text', name: 'consent_text', nullable: true },
    consentedAt: { type: 'timestamptz', name: 'consented_at', nullable: true },
    page: { type: 'text' },
    submittedAt: { type: 'timestamptz', name: 'submitted_at' },
  },
});
