import { z } from 'zod';
import { BROWSERS, COMPARISONS, SOURCES, SYSTEMS } from './values.ts';

const count = z.number().int().min(0).max(1_000_000);
const code = z.string().trim().toLowerCase();

/** The host of what somebody typed: a host, an address with its scheme and path, letters of any alphabet. */
function hostOf(text: string): string {
  try {
    return new URL(/^[a-z]+:\/\//i.test(text) ? text : `https://${text}`).hostname;
  } catch {
    return text;
  }
}

/** One thing that is true of a visitor or not. What is not known is never true, and its negation is. */
export const conditionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('visitor'), is: z.enum(['new', 'returning']) }),
  z.strictObject({ kind: z.literal('sessions'), comparison: z.enum(COMPARISONS), count }),
  z.strictObject({ kind: z.literal('views'), comparison: z.enum(COMPARISONS), count }),
  z.strictObject({ kind: z.literal('signedIn'), is: z.boolean() }),
  z.strictObject({ kind: z.literal('source'), is: z.enum(SOURCES) }),
  z.strictObject({
    kind: z.literal('referrer'),
    host: code
      .overwrite(hostOf)
      .max(253)
      .regex(/^[^\s/?#@:]+$/, 'name a host, like partner.example'),
  }),
  z.strictObject({
    kind: z.literal('arrival'),
    parameter: z.string().trim().min(1).max(80),
    value: z.string().max(300),
  }),
  z.strictObject({ kind: z.literal('landing'), path: z.string().regex(/^\//, 'start with /').max(2048) }),
  z.strictObject({
    kind: z.literal('language'),
    code: code.regex(/^[a-z]{2,3}(-[a-z0-9]{2,8})*$/, 'use a code like en or en-gb'),
  }),
  z.strictObject({
    kind: z.literal('country'),
    code: code.regex(/^([a-z]{2}|unknown)$/, 'use two letters, or unknown'),
  }),
  z.strictObject({ kind: z.literal('browser'), is: z.enum(BROWSERS) }),
  z.strictObject({ kind: z.literal('system'), is: z.enum(SYSTEMS) }),
  z.strictObject({ kind: z.literal('basketItems'), comparison: z.enum(COMPARISONS), count }),
  z.strictObject({
    kind: z.literal('basketTotal'),
    comparison: z.enum(COMPARISONS),
    amount: z.number().min(0).max(1e9),
  }),
  z.strictObject({
    kind: z.literal('attribute'),
    name: z.string().trim().min(1).max(80),
    value: z.string().max(300),
  }),
  z.strictObject({
    kind: z.literal('campaign'),
    id: z.uuid().nullable(),
    what: z.enum(['seen', 'closed', 'converted']),
  }),
]);
export type Condition = z.infer<typeof conditionSchema>;

const item = z.strictObject({ not: z.boolean(), condition: conditionSchema });
/** A condition that is to hold, or with `not` is to fail. */
export type AudienceItem = z.infer<typeof item>;

/** Groups of conditions, one level deep: all of, or any of; each condition and each group can be negated. */
export const audienceSchema = z.strictObject({
  match: z.enum(['all', 'any']),
  groups: z
    .array(
      z.strictObject({
        not: z.boolean(),
        match: z.enum(['all', 'any']),
        items: z.array(item).min(1).max(12),
      }),
    )
    .min(1)
    .max(8),
});
export type Audience = z.infer<typeof audienceSchema>;
