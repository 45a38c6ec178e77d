import { z } from 'zod';
import { LIMITS } from '../values.ts';
import { line } from './text.ts';

/** A language, with its script and region where they matter: `cy`, `pt-BR`, `sr-Latn`. Source: BCP 47 (RFC 5646). */
export const languageTagSchema = z
  .string()
  .regex(/^[a-z]{2,3}(-[A-Z][a-z]{3})?(-([A-Z]{2}|\d{3}))?$/, 'write it like en, cy or pt-BR');

/** Names a text of a message: its block and its part of it. What belongs to no block begins with the dot. */
export const textKeySchema = z.string().regex(/^[a-z0-9-]{0,40}(\.[a-z0-9-]{1,40}){1,2}$/);

const ownTextSchema = line(20_000);
/** A text in another language. */
export const translatedSchema = z.strictObject({
  text: ownTextSchema,
  /** What the original said when it was written. */
  of: ownTextSchema,
});
export type Translated = z.infer<typeof translatedSchema>;

export const translationSchema = z.strictObject({
  /** The language: what is written in one is merged apart from what is written in another. */
  id: languageTagSchema,
  texts: z.record(textKeySchema, translatedSchema),
});
export type Translation = z.infer<typeof translationSchema>;

/** A message in several languages: it is written in one, and has texts in others. */
export const languagesSchema = z
  .strictObject({
    /** What the message itself is written in. */
    original: languageTagSchema,
    others: z.array(translationSchema).max(LIMITS.languages),
    /** What the original says otherwise than messages do by themselves. */
    worded: z.record(textKeySchema, translatedSchema).optional(),
  })
  .refine(
    ({ original, others }) => new Set([original, ...others.map(({ id }) => id)]).size === others.length + 1,
    'name each language once',
  );
export type Languages = z.infer<typeof languagesSchema>;
