import { z } from 'zod';
import { blockIdSchema } from './message/blocks.ts';
import { languageTagSchema } from './message/languages.ts';
import { messageHashSchema } from './message/message.ts';
import { triggerKindSchema } from './trigger.ts';
import { CLOSE_WAYS, DEVICES, EVENT_KINDS, LIMITS, SITE_KEY } from './values.ts';

/** RFC 9562 version 7: time-ordered, made by the tag, the key that makes a resent event count once. */
export const eventIdSchema = z
  .string()
  .regex(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
export const visitorIdSchema = z.string().regex(/^[0-9a-f]{32}$/);

/** What an event says of the message that was shown; `a` is the first of a campaign. */
const shownVariantSchema = z.string().regex(/^[a-z]$/, 'use one letter');

/** The messages beside the first, which is `a`, name themselves. */
export const variantIdSchema = z.string().regex(/^[b-z]$/, 'use one letter from b to z');

const counted = z.number().int().min(0).max(1e9);
/** Whole seconds in sight, and per cent of the page reached; a page that has shrunk can be reached by more than all. */
const staySchema = z.tuple([counted, counted]);

/** What a basket holds, and what it costs in the site's own currency. */
const basketSchema = z.strictObject({
  items: z.number().min(0).max(1e6),
  total: z.number().min(0).max(1e12),
});

/** What the page told of the visitor by the end of a page view; `null` where it told nothing. */
const toldSchema = z.strictObject({
  signedIn: z.boolean().nullable(),
  basket: basketSchema.nullable(),
  attributes: z.record(z.string().max(80), z.string().max(300)),
});

export const visitorEventSchema = z.strictObject({
  id: eventIdSchema,
  kind: z.enum(EVENT_KINDS),
  session: eventIdSchema,
  /** Path and query of the page, as the browser has it. */
  page: z.string().max(LIMITS.pageAddress).regex(/^\//, 'begin with a slash'),
  device: z.enum(DEVICES),
  campaign: z.uuid().optional(),
  version: z.number().int().min(1).max(1_000_000).optional(),
  variant: shownVariantSchema.optional(),
  closedBy: z.enum(CLOSE_WAYS).optional(),
  /**
   * With `left`: how long the page was in sight and how much of it was. With `shown`: the same when it opened. With `closed`:
   * seconds since it opened, and how much of the page had been in sight.
   */
  stay: staySchema.optional(),
  /** With `shown`: the trigger that opened it. */
  cause: triggerKindSchema.optional(),
  /** With `shown`: the language it is in, where it has several. */
  language: languageTagSchema.optional(),
  /** With `clicked`: the block that was. With `answering`: the field. With `shared`: the way. */
  part: blockIdSchema.optional(),
  /** With `left`: the `pageview` event it is the end of. A visitor who comes back leaves the same view again. */
  view: eventIdSchema.optional(),
  /** With the first `pageview` of a session: its number, 1 for the visitor's first, and the host it came from. */
  begun: z.tuple([z.number().int().min(1).max(1e9), z.string().max(300)]).optional(),
  /** With `reached`: the goal, and what it was worth in the site's own currency. */
  goal: z.uuid().optional(),
  worth: z.number().min(0).max(1e12).optional(),
  /** With `left`, where the site records it. */
  told: toldSchema.optional(),
  /** With `left`: what the page called itself. */
  title: z.string().max(LIMITS.collectBytes).optional(),
});
export type VisitorEvent = z.infer<typeof visitorEventSchema>;

export const collectSchema = z.strictObject({
  site: z.string().regex(SITE_KEY),
  visitor: visitorIdSchema,
  /** Which manifest the page runs: when it was made. Missing from tags of before it was told. */
  made: z.number().int().min(0).max(1e15).optional(),
  events: z.array(visitorEventSchema).min(1).max(LIMITS.collectEvents),
});
export type Collect = z.infer<typeof collectSchema>;

export const submitSchema = z.strictObject({
  site: z.string().regex(SITE_KEY),
  visitor: visitorIdSchema,
  event: visitorEventSchema.extend({
    kind: z.literal('converted'),
    campaign: z.uuid(),
    version: z.number().int().min(1).max(1_000_000),
  }),
  /** The event that told of the showing this answers, which counts once with it. */
  showing: eventIdSchema.optional(),
  /** The file of the message the visitor had; missing from tags of before it was asked for. */
  message: messageHashSchema.optional(),
  /** The block of it that is the form; its first where missing. */
  form: blockIdSchema.optional(),
  /** Answers by field id; the server reads the form itself from that file. */
  fields: z.record(z.string().max(40), z.string().max(LIMITS.fieldValue)),
  consent: z.boolean(),
  /** The sum that was asked, with its answer: `3+4=seven`. */
  sum: z.string().max(40).optional(),
  /** What the field holds that people do not see; programs fill it in. */
  unseen: z.string().max(200).optional(),
  /** Pictures by field id, in base 64 (RFC 4648); the answer of the field is the file's name. */
  files: z
    .record(
      z.string().max(40),
      z
        .string()
        .max(Math.ceil(LIMITS.fileBytes / 3) * 4)
        .regex(/^[A-Za-z0-9+/]*={0,2}$/),
    )
    .optional(),
});
export type Submit = z.infer<typeof submitSchema>;
