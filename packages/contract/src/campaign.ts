import { z } from 'zod';
import { messageSchema } from './message.ts';
import { ruleSchema } from './rule.ts';
import { CAMPAIGN_STATES, LIMITS } from './values.ts';

export const campaignNameSchema = z
  .string()
  .trim()
  .min(1, 'give it a name')
  .max(LIMITS.campaignName, `keep it to ${LIMITS.campaignName} characters`);

/** What the Workbench edits and a version freezes. */
export const campaignDocumentSchema = z.strictObject({ message: messageSchema, rule: ruleSchema });
export type CampaignDocument = z.infer<typeof campaignDocumentSchema>;

/** Unique-visitor counts, never shown as a rate without an interval computed by core. */
export const campaignNumbersSchema = z.strictObject({
  showings: z.number().int(),
  visitors: z.number().int(),
  conversions: z.number().int(),
  converters: z.number().int(),
});
export type CampaignNumbers = z.infer<typeof campaignNumbersSchema>;

export const campaignSummarySchema = z.strictObject({
  id: z.uuid(),
  siteId: z.uuid(),
  name: z.string(),
  state: z.enum(CAMPAIGN_STATES),
  format: messageSchema.shape.format,
  anchor: messageSchema.shape.anchor,
  rule: ruleSchema,
  revision: z.number().int(),
  /** Whether the draft says something the published version does not. */
  hasUnpublishedChanges: z.boolean(),
  publishedAt: z.iso.datetime().nullable(),
  /** When its schedule will next open or shut it. */
  nextChangeAt: z.iso.datetime().nullable(),
  updatedAt: z.iso.datetime(),
  numbers: campaignNumbersSchema,
});
export type CampaignSummary = z.infer<typeof campaignSummarySchema>;

export const campaignSchema = campaignSummarySchema.extend({ document: campaignDocumentSchema });
export type Campaign = z.infer<typeof campaignSchema>;

export const createCampaignSchema = z.strictObject({
  name: campaignNameSchema,
  template: z.string().max(60),
});
export type CreateCampaign = z.infer<typeof createCampaignSchema>;

export const renameCampaignSchema = z.strictObject({ name: campaignNameSchema });

/** `revision` is the one the edit was made on; a newer one on the server refuses the save. */
export const saveDraftSchema = z.strictObject({
  revision: z.number().int().min(0),
  document: campaignDocumentSchema,
});
export type SaveDraft = z.infer<typeof saveDraftSchema>;

export const leadSchema = z.strictObject({
  id: z.uuid(),
  campaignId: z.uuid(),
  campaignName: z.string(),
  fields: z.array(z.strictObject({ label: z.string(), value: z.string() })),
  consentText: z.string().nullable(),
  consentedAt: z.iso.datetime().nullable(),
  page: z.string(),
  submittedAt: z.iso.datetime(),
});
export type Lead = z.infer<typeof leadSchema>;
