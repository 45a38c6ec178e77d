import type { AnsweredField, HeldReason } from '@velarium/contract';
import { EntitySchema } from 'typeorm';

export interface LeadRow {
  /** The id of the event that brought it, so sending twice stores once. */
  id: string;
  workspaceId: string;
  siteId: string;
  campaignId: string;
  version: number;
  variant: string | null;
  /** The message file the visitor had; `null` for answers from before it was sent along. */
  messageHash: string | null;
  /** The language it was asked in, where the message had several. */
  language: string | null;
  /** The form's block in it; `null` for answers from before it was kept. */
  form: string | null;
  visitor: string;
  /** What the step it stood on is called. */
  step: string | null;
  /** The visit it came in, where source and country stand. */
  session: string | null;
  device: string | null;
  personId: string | null;
  /** Answers with the labels they were asked under. */
  fields: AnsweredField[];
  /** The exact words agreed to, taken from the message file the visitor had. */
  consentText: string | null;
  consentedAt: Date | null;
  page: string;
  submittedAt: Date;
  held: HeldReason | null;
  /** What is counted once a held answer is let through. */
  heldEvents: unknown;
  /** Every answer in lower case, to be searched. */
  search: string;
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
    variant: { type: 'text', nullable: true },
    messageHash: { type: 'text', name: 'message_hash', nullable: true },
    language: { type: 'text', nullable: true },
    form: { type: 'text', nullable: true },
    step: { type: 'text', nullable: true },
    visitor: { type: 'uuid' },
    session: { type: 'uuid', nullable: true },
    device: { type: 'text', nullable: true },
    personId: { type: 'uuid', name: 'person_id', nullable: true },
    fields: { type: 'jsonb' },
    consentText: { type: 'text', name: 'consent_text', nullable: true },
    consentedAt: { type: 'timestamptz', name: 'consented_at', nullable: true },
    page: { type: 'text' },
    submittedAt: { type: 'timestamptz', name: 'submitted_at' },
    held: { type: 'text', nullable: true },
    heldEvents: { type: 'jsonb', name: 'held_events', nullable: true },
    search: { type: 'text', default: '' },
  },
});
