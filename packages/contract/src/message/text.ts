import { z } from 'zod';
import { LIMITS } from '../values.ts';
import { colourValueSchema } from './style.ts';

export const line = (max: number) => z.string().max(max);

/** Addresses a message may lead to. Scripts and data never pass. */
export const linkAddressSchema = z
  .string()
  .max(LIMITS.pageAddress)
  .regex(
    // A browser takes `//host` and `/\host` for another site's address (WHATWG URL).
    /^$|^(https?:\/\/(?![\\/])|mailto:|tel:|\/(?![\\/])|#)[^\s]*$/,
    'start with https://, mailto:, tel: or one /, without spaces',
  );

/** Addresses a frame may show: another page, never a script. */
export const frameAddressSchema = z
  .string()
  .max(LIMITS.pageAddress)
  .regex(/^$|^https?:\/\/[^\s]+$/, 'start with https://, without spaces');

/**
 * Rich text is a tree: paragraphs of spans. It never holds markup. Any text may hold places for what is known of the
 * visitor, `{{visitor.firstName|friend}}`.
 */
export const spanOfTextSchema = z.strictObject({
  text: line(4000),
  bold: z.literal(true).optional(),
  italic: z.literal(true).optional(),
  link: linkAddressSchema.optional(),
  /** A link that opens in the same tab; in a new one otherwise. */
  isHere: z.literal(true).optional(),
  colour: colourValueSchema.optional(),
  size: z.enum(['small', 'large']).optional(),
});
export type TextSpan = z.infer<typeof spanOfTextSchema>;
export const richTextSchema = z.array(z.array(spanOfTextSchema).max(200)).max(60);
export type RichText = z.infer<typeof richTextSchema>;
