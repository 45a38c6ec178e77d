import { z } from 'zod';
import { audienceSchema } from './audience.ts';
import { pagesSchema } from './pages.ts';
import { scheduleSchema } from './schedule.ts';
import { momentSchema } from './trigger.ts';
import { DEVICES, SPAN_UNITS, WITHOUT_MEMORY } from './values.ts';

/** A length of time in words; a month is 30 days. */
export const spanSchema = z.strictObject({
  count: z.number().int().min(1).max(999),
  unit: z.enum(SPAN_UNITS),
});
export type Span = z.infer<typeof spanSchema>;

export const reachSchema = z.strictObject({
  pages: pagesSchema,
  devices: z.array(z.enum(DEVICES)).max(DEVICES.length),
  /** Everybody when `null`. */
  audience: audienceSchema.nullable(),
});
export type Reach = z.infer<typeof reachSchema>;

/** At most `max` showings per session, in any rolling span, or for ever. */
export const capSchema = z.strictObject({
  max: z.number().int().min(1).max(999),
  per: z.union([z.enum(['session', 'ever']), spanSchema]),
});
export type Cap = z.infer<typeof capSchema>;

/** How long a campaign stays away after something happened: not at all, this session, a span, or for ever. */
export const pauseSchema = z.union([z.enum(['none', 'session', 'ever']), spanSchema]);
export type Pause = z.infer<typeof pauseSchema>;

export const limitsSchema = z.strictObject({
  /** All must hold. Empty: once in every page view. */
  caps: z.array(capSchema).max(8),
  afterClose: pauseSchema,
  /** After the visitor said no. */
  afterNo: pauseSchema,
  afterConversion: pauseSchema,
  /** Never again after this many showings in a row without a click or a conversion; closing is no answer. */
  stopAfterUnanswered: z.number().int().min(1).max(99).nullable(),
  /** Always when `null`. */
  schedule: scheduleSchema.nullable(),
  /** What it does when another message has the floor. */
  whenBusy: z.enum(['wait', 'yield']),
  /** Among campaigns that want to open at once the higher goes first. */
  priority: z.number().int().min(1).max(9),
  /** Whether it may show where nothing can be remembered from page to page. */
  withoutMemory: z.enum(WITHOUT_MEMORY),
  /** Per cent of visitors from whom it is withheld, to measure what it does. */
  holdout: z.number().int().min(0).max(90),
});
export type Limits = z.infer<typeof limitsSchema>;

/** When, where, to whom and how often: a campaign's whole behaviour. */
export const ruleSchema = z.strictObject({
  moment: momentSchema,
  reach: reachSchema,
  limits: limitsSchema,
});
export type Rule = z.infer<typeof ruleSchema>;
