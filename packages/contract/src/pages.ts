import { z } from 'zod';
import { selectorSchema } from './trigger.ts';
import { LIMITS } from './values.ts';

/** A path of the site beginning with `/`, or a whole http(s) address. */
export const pageAddressSchema = z
  .string()
  .max(LIMITS.pageAddress)
  .regex(/^(\/|https?:\/\/)[^\s]*$/, 'start with / or with https://, without spaces');

const text = z.string().min(1).max(300);

export const pageRuleSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('every') }),
  z.strictObject({ kind: z.literal('exact'), address: pageAddressSchema }),
  z.strictObject({ kind: z.literal('begins'), address: pageAddressSchema }),
  z.strictObject({ kind: z.literal('contains'), text }),
  /** `*` stands for anything but `/`, `**` for anything. */
  z.strictObject({ kind: z.literal('wildcard'), pattern: pageAddressSchema }),
  /** Linear-time subset; core refuses the rest with its reason. */
  z.strictObject({ kind: z.literal('regex'), pattern: text }),
  z.strictObject({ kind: z.literal('pageKind'), name: z.string().trim().min(1).max(80) }),
  z.strictObject({
    kind: z.literal('parameter'),
    name: z.string().trim().min(1).max(80),
    value: z.string().max(300).nullable(),
  }),
  z.strictObject({ kind: z.literal('holds'), selector: selectorSchema }),
]);
export type PageRule = z.infer<typeof pageRuleSchema>;

export const pagesSchema = z.strictObject({
  include: z.array(pageRuleSchema).max(200),
  exclude: z.array(pageRuleSchema).max(200),
});
export type Pages = z.infer<typeof pagesSchema>;
