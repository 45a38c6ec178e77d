import { z } from 'zod';
import { campaignDocumentSchema } from './campaign.ts';
import { keptForecastSchema } from './forecast.ts';
import { messageHashSchema } from './message/message.ts';
import { MOST_NOTE } from './values.ts';

const version = z.number().int().min(1);
const note = z.string().trim().max(MOST_NOTE);
/** Why something was done, in a person's words. */
export const moveNoteSchema = note.default('');

/** One line of a campaign's history. `redrawn` is no move: a Look or saved block changed what its version looks like. */
export const historyEntrySchema = z.strictObject({
  at: z.iso.datetime(),
  what: z.enum(['published', 'rested', 'resumed', 'redrawn', 'asked', 'declined']),
  version: version.nullable(),
  byName: z.string(),
  note: z.string(),
});
export type HistoryEntry = z.infer<typeof historyEntrySchema>;

/** What will be published by itself: the draft as it was when it was planned, or when agreement to it was asked for. */
export const plannedLaunchSchema = z.strictObject({
  id: z.uuid(),
  /** `null`: as soon as somebody agrees. */
  at: z.iso.datetime().nullable(),
  /** It waits for a second person to agree. */
  awaits: z.boolean(),
  /** How many others are launched in the same moment, or not at all. */
  together: z.number().int(),
  /** Whoever asks planned it. */
  isMine: z.boolean(),
  note: z.string(),
  byName: z.string(),
  revision: z.number().int(),
  /** Why it could not be published when its time had come; empty while it has not. */
  failure: z.string(),
});
export type PlannedLaunch = z.infer<typeof plannedLaunchSchema>;
/** The same with what is published: what a second person looks at. */
export const plannedDocumentSchema = plannedLaunchSchema.extend({
  document: campaignDocumentSchema,
  /** What was asked for together with it: all of them are launched in one moment, or none. */
  others: z.array(
    z.strictObject({
      id: z.uuid(),
      campaignId: z.uuid(),
      name: z.string(),
      revision: z.number().int(),
      document: campaignDocumentSchema,
    }),
  ),
});
export type PlannedDocument = z.infer<typeof plannedDocumentSchema>;

/** What has become of a campaign, the newest first. */
export const campaignHistorySchema = z.strictObject({
  live: version.nullable(),
  planned: plannedLaunchSchema.nullable(),
  entries: z.array(historyEntrySchema),
  /** Where the next lines begin; `null` after the last. */
  next: z.string().nullable(),
});
export type CampaignHistory = z.infer<typeof campaignHistorySchema>;

/** What a draft was saved as once. */
export const earlierDraftSchema = z.strictObject({
  revision: z.number().int(),
  at: z.iso.datetime(),
  byName: z.string(),
});
export type EarlierDraft = z.infer<typeof earlierDraftSchema>;

/** Which lines of a history are asked for: those after a cursor, else the newest. */
export const historyCursorSchema = z.strictObject({
  cursor: z
    .string()
    .regex(
      /^[-\d:. +]{20,40}~(published|rested|resumed|redrawn|asked|declined)~\d{0,9}$/,
      'expected a cursor of this list',
    )
    .optional(),
});

/** A published version, frozen: its document, and what visitors were given of its message, the latest first. */
export const campaignVersionSchema = z.strictObject({
  version,
  document: campaignDocumentSchema,
  publishedAt: z.iso.datetime(),
  files: z.array(
    z.strictObject({
      variant: z.string(),
      /** Empty for the one it was written in. */
      language: z.string(),
      hash: messageHashSchema,
      firstAt: z.iso.datetime(),
    }),
  ),
});
export type CampaignVersion = z.infer<typeof campaignVersionSchema>;

/**
 * A launch for later, or one that a second person is asked to agree to; `revision` is the draft that was looked at. Without
 * a time it is launched as soon as they do.
 */
export const planLaunchSchema = z.strictObject({
  revision: z.number().int().min(0),
  at: z.iso.datetime().nullable(),
  note: moveNoteSchema,
  forecast: keptForecastSchema.optional(),
});
export type PlanLaunch = z.input<typeof planLaunchSchema>;

/** A second person agrees to this plan and to no other. */
const lookedAtSchema = z.strictObject({ id: z.uuid() });
export const agreeSchema = lookedAtSchema.extend({
  /** The plans that were looked at with it; it is refused where others go with it by now. */
  others: z.array(z.uuid()).max(50).default([]),
});
/** Or does not, and says why. */
export const declineSchema = lookedAtSchema.extend({ note: moveNoteSchema });

/** Several campaigns of a site published together: all, or none. */
export const launchTogetherSchema = z.strictObject({
  campaigns: z
    .array(z.strictObject({ id: z.uuid(), revision: z.number().int().min(0) }))
    .min(1)
    .max(50),
  note: moveNoteSchema,
});
export type LaunchTogether = z.input<typeof launchTogetherSchema>;

export const bringBackSchema = z.strictObject({ note: moveNoteSchema });
