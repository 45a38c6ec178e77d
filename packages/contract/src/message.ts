import { z } from 'zod';
import { ANCHORS, FIELD_KINDS, FORMATS, LIMITS } from './values.ts';

const id = z.string().regex(/^[a-z0-9-]{1,40}$/, 'use 1 to 40 lower-case letters, digits and hyphens');
const line = (max: number) => z.string().max(max);

export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'use six hex digits, for example #1f3a5f');

/** Addresses a message may lead to. Scripts and data never pass. */
export const linkAddressSchema = z
  .string()
  .max(LIMITS.pageAddress)
  .regex(
    /^$|^(https?:\/\/|mailto:|tel:|\/|#)[^\s]*$/,
    'start with https://, mailto:, tel: or /, without spaces',
  );

/** Rich text is a tree: paragraphs of spans. It never holds markup. */
export const spanOfTextSchema = z.strictObject({
  text: line(4000),
  bold: z.literal(true).optional(),
  italic: z.literal(true).optional(),
});
export type TextSpan = z.infer<typeof spanOfTextSchema>;
export const richTextSchema = z.array(z.array(spanOfTextSchema).max(200)).max(60);
export type RichText = z.infer<typeof richTextSchema>;

export const actionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('link'), address: linkAddressSchema, newTab: z.boolean() }),
  z.strictObject({ kind: z.literal('close') }),
]);
export type Action = z.infer<typeof actionSchema>;

export const headingBlockSchema = z.strictObject({ id, kind: z.literal('heading'), text: line(300) });
export const textBlockSchema = z.strictObject({
  id,
  kind: z.literal('text'),
  content: richTextSchema,
  size: z.enum(['body', 'small']),
});
export const buttonBlockSchema = z.strictObject({
  id,
  kind: z.literal('button'),
  label: line(120),
  action: actionSchema,
});
export const fieldSchema = z.strictObject({
  id,
  kind: z.enum(FIELD_KINDS),
  label: line(120),
  placeholder: line(120),
  required: z.boolean(),
});
export type Field = z.infer<typeof fieldSchema>;
export const formBlockSchema = z.strictObject({
  id,
  kind: z.literal('form'),
  fields: z.array(fieldSchema).min(1).max(20),
  /** The exact words agreed to; empty when the form asks for no consent. */
  consentText: line(600),
  submitLabel: line(120),
});
export interface FormBlock extends z.infer<typeof formBlockSchema> {}

export const blockSchema = z.discriminatedUnion('kind', [
  headingBlockSchema,
  textBlockSchema,
  buttonBlockSchema,
  formBlockSchema,
]);
export type Block = z.infer<typeof blockSchema>;

export const stepSchema = z.strictObject({
  id,
  /** `first` opens; `success` follows a sent form. */
  role: z.enum(['first', 'success']),
  blocks: z.array(blockSchema).max(LIMITS.blocksPerStep),
});
export type Step = z.infer<typeof stepSchema>;

export const paletteSchema = z.strictObject({
  surface: colourSchema,
  ink: colourSchema,
  accent: colourSchema,
  onAccent: colourSchema,
  backdrop: colourSchema,
});
export type Palette = z.infer<typeof paletteSchema>;

/** One message: a validated document of steps and blocks, never markup to be trusted. */
export const messageSchema = z.strictObject({
  format: z.enum(FORMATS),
  anchor: z.enum(ANCHORS),
  /** CSS pixels; narrower windows shrink it. Bars and full-screen messages fill the width and ignore it. */
  width: z.number().int().min(200).max(1200),
  palette: paletteSchema,
  /** What a screen reader calls the box when it has no heading. */
  label: line(120),
  steps: z.array(stepSchema).min(1).max(LIMITS.steps),
});
export type Message = z.infer<typeof messageSchema>;
