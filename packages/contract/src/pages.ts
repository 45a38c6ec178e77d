import { z } from 'zod';
import { selectorSchema } from './trigger.ts';
import { LIMITS } from './values.ts';

/** Wildcards may stand in a host too, where the standard's parser takes none. */
function isAddress(address: string): boolean {
  try {
    return new URL(address).host !== '';
  } catch {
    return false;
  }
}

/** A path of the site beginning with `/`, or a whole http(s) address. */
export const pageAddressSchema = z
  .string()
  .max(LIMITS.pageAddress)
  .regex(/^(\/|https?:\/\/)[^\s]*$/, 'start with / or with https://, without spaces')
  .refine(
    (address) => address.startsWith('/') || isAddress(address),
    'this is no address; check the host and the port',
  );

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
  /** A named set of rules of the site, as it is at the time. */
  z.strictObject({ kind: z.literal('group'), id: z.uuid() }),
]);
export type PageRule = z.infer<typeof pageRuleSchema>;

export const pagesSchema = z.strictObject({
  include: z.array(pageRuleSchema).max(200),
  exclude: z.array(pageRuleSchema).max(200),
  /** A campaign whose page rules are taken over beside these, and followed as they change. */
  follows: z.uuid().nullable(),
});
export type Pages = z.infer<typeof pagesSchema>;

/** The rules of a page group; a group holds no other group. */
export const pageGroupSchema = z.strictObject({
  id: z.uuid(),
  name: z.string().trim().min(1, 'give it a name').max(80),
  rules: z
    .array(pageRuleSchema.refine((rule) => rule.kind !== 'group', 'a group cannot hold another group'))
    .max(200),
});
export type PageGroup = z.infer<typeof pageGroupSchema>;
export const savePageGroupSchema = pageGroupSchema.omit({ id: true });
