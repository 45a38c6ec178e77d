import { z } from 'zod';
import { DEVICES, LIMITS, SPAN_UNITS } from './values.ts';

/** A stable name for a part of a rule, so that a phrase of the sentence can point at it. */
const partId = z.string().regex(/^[a-z0-9-]{1,40}$/, 'use 1 to 40 lower-case letters, digits and hyphens');

/** A length of time in words; a month is 30 days. */
export const spanSchema = z.strictObject({
  count: z.number().int().min(1).max(999),
  unit: z.enum(SPAN_UNITS),
});
export type Span = z.infer<typeof spanSchema>;

/** Opens once the page has been visible for `seconds`; 0 means at once. */
export const timeTriggerSchema = z.strictObject({
  id: partId,
  kind: z.literal('time'),
  seconds: z.number().min(0).max(LIMITS.triggerSeconds).multipleOf(0.1),
});

export const triggerSchema = z.discriminatedUnion('kind', [timeTriggerSchema]);
export type Trigger = z.infer<typeof triggerSchema>;

export const momentSchema = z.strictObject({
  triggers: z.array(triggerSchema).min(1, 'add at least one trigger').max(1),
});
export type Moment = z.infer<typeof momentSchema>;

/** A path of the site beginning with `/`, or a whole http(s) address. */
export const pageAddressSchema = z
  .string()
  .max(LIMITS.pageAddress)
  .regex(/^(\/|https?:\/\/)[^\s]*$/, 'start with / or with https://, without spaces');

export const pageRuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('every') }),
  z.strictObject({ kind: z.literal('exact'), address: pageAddressSchema }),
]);
export type PageRule = z.infer<typeof pageRuleSchema>;

export const pagesSchema = z.strictObject({
  include: z.array(pageRuleSchema).max(200),
  exclude: z.array(pageRuleSchema).max(200),
});
export type Pages = z.infer<typeof pagesSchema>;

export const reachSchema = z.strictObject({
  pages: pagesSchema,
  devices: z.array(z.enum(DEVICES)).max(DEVICES.length),
});
export type Reach = z.infer<typeof reachSchema>;

/** At most `max` showings per page view, per session, in any rolling span, or for ever. */
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
  afterConversion: pauseSchema,
});
export type Limits = z.infer<typeof limitsSchema>;

/** When, where, to whom and how often: a campaign's whole behaviour. */
export const ruleSchema = z.strictObject({
  moment: momentSchema,
  reach: reachSchema,
  limits: limitsSchema,
});
export type Rule = z.infer<typeof ruleSchema>;
