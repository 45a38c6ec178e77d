import { z } from 'zod';
import { variantIdSchema } from './events.ts';
import { keptForecastSchema } from './forecast.ts';
import { messageSchema } from './message/message.ts';
import { miniatureSchema } from './miniature.ts';
import { ruleSchema } from './rule.ts';
import { momentSchema } from './trigger.ts';
import { CAMPAIGN_STATES, LIMITS, MOST_NOTE } from './values.ts';

export const campaignNameSchema = z
  .string()
  .trim()
  .min(1, 'give it a name')
  .max(LIMITS.campaignName, `keep it to ${LIMITS.campaignName} characters`);

/** How variants are tried. */
export const trialSchema = z.strictObject({
  /** The smallest difference of rates worth having, in points of 100. */
  smallest: z.number().min(0.1).max(50),
  /** Ends when the planned visitors have come; or runs without an end. */
  isPlanned: z.boolean(),
  /** The goal of the site it is for; the message's own answer or click where missing. */
  goal: z.uuid().optional(),
});
export type Trial = z.infer<typeof trialSchema>;

/** What the Workbench edits and a version freezes. */
export const campaignDocumentSchema = z.strictObject({
  message: messageSchema,
  rule: ruleSchema,
  /** Further messages tried beside the first, which has what is left of the 100 per cent. */
  variants: z
    .array(
      z.strictObject({
        id: variantIdSchema,
        weight: z.number().int().min(0).max(100),
        message: messageSchema,
        /** When it opens; as the first message does where missing. */
        moment: momentSchema.optional(),
      }),
    )
    .max(7)
    .refine((all) => all.reduce((sum, { weight }) => sum + weight, 0) <= 100, 'together at most 100 per cent')
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'name each variant once'),
  /** What its variants are tried for; as {@link DEFAULT_TRIAL} says where missing. */
  trial: trialSchema.optional(),
});
export type CampaignDocument = z.infer<typeof campaignDocumentSchema>;

/** Unique-visitor counts, never shown as a rate without an interval computed by core. */
export const campaignNumbersSchema = z.strictObject({
  showings: z.number().int(),
  visitors: z.number().int(),
  conversions: z.number().int(),
  converters: z.number().int(),
});
export type CampaignNumbers = z.infer<typeof campaignNumbersSchema>;

/** A word of the team's own to find campaigns by. */
export const labelSchema = z.string().trim().min(1).max(40);

export const campaignSummarySchema = z.strictObject({
  id: z.uuid(),
  siteId: z.uuid(),
  name: z.string(),
  state: z.enum(CAMPAIGN_STATES),
  labels: z.array(labelSchema),
  /** What the team should know of it; visitors never see it. */
  note: z.string(),
  format: messageSchema.shape.format,
  anchor: messageSchema.shape.anchor,
  /** What its closing means; the rest of its close button is no behaviour. */
  closing: messageSchema.shape.close.pick({ afterSeconds: true, means: true }),
  rule: ruleSchema,
  variants: z.array(z.strictObject({ id: variantIdSchema, weight: z.number().int() })),
  revision: z.number().int(),
  /** Whether the draft says something the published version does not. */
  hasUnpublishedChanges: z.boolean(),
  publishedAt: z.iso.datetime().nullable(),
  /** When its draft, as it was when that was planned, is published by itself. */
  plannedAt: z.iso.datetime().nullable(),
  /** A launch of it waits for a second person to agree. */
  awaits: z.boolean(),
  /** When its schedule will next open or shut it. */
  nextChangeAt: z.iso.datetime().nullable(),
  /** When its schedule ends it for good. */
  endsAt: z.iso.datetime().nullable(),
  updatedAt: z.iso.datetime(),
  numbers: campaignNumbersSchema,
  /** The draft's message from afar. */
  miniature: miniatureSchema,
  /** Showings on the site's last seven days, today among them. */
  shownLately: z.number().int(),
  /** Of what its answers sent out in the last thirty days, how much was given up. */
  givenUp: z.number().int(),
});
export type CampaignSummary = z.infer<typeof campaignSummarySchema>;

export const campaignSchema = campaignSummarySchema.extend({ document: campaignDocumentSchema });
export type Campaign = z.infer<typeof campaignSchema>;

/** A running campaign as visitors meet it. */
export const runningCampaignSchema = campaignSchema.pick({ id: true, name: true, document: true });

export const createCampaignSchema = z.strictObject({
  name: campaignNameSchema,
  template: z.string().max(60),
});
export type CreateCampaign = z.infer<typeof createCampaignSchema>;

/** What is changed beside the draft; what is left out stays. */
export const changeCampaignSchema = z.strictObject({
  name: campaignNameSchema.optional(),
  labels: z.array(labelSchema).max(20).optional(),
  note: z.string().max(MOST_NOTE).optional(),
});
export type ChangeCampaign = z.infer<typeof changeCampaignSchema>;

/** To another site; a trial makes nothing and only says what could not come along. */
export const copyCampaignSchema = z.strictObject({ siteId: z.uuid(), isTrial: z.boolean() });
export type CopyCampaign = z.infer<typeof copyCampaignSchema>;

/** `revision` is the one the edit was made on; a newer one on the server refuses the save. */
export const saveDraftSchema = z.strictObject({
  revision: z.number().int().min(0),
  document: campaignDocumentSchema,
});
export type SaveDraft = z.infer<typeof saveDraftSchema>;

/** `revision` is the draft that was looked at; a newer one on the server refuses the move. */
export const publishSchema = z.strictObject({
  revision: z.number().int().min(0),
  /** Why, in a person's words. */
  note: z.string().trim().max(MOST_NOTE).default(''),
  /** What was foreseen of this draft, where that was known. */
  forecast: keptForecastSchema.optional(),
});
export type Publish = z.input<typeof publishSchema>;

/** Somebody of the team who has the same campaign open. */
const colleagueSchema = z.strictObject({ accountId: z.uuid(), name: z.string() });
/** Who else has a campaign open, and how far its draft has come, so that an open one can follow it. */
export const presenceSchema = z.strictObject({
  others: z.array(colleagueSchema),
  revision: z.number().int().min(0),
});
export type Presence = z.infer<typeof presenceSchema>;
