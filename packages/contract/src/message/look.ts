import { z } from 'zod';
import { COLOUR_ROLES, FONTS, SHADOWS } from '../values.ts';
import { colourSchema } from './style.ts';

const colours = Object.fromEntries(COLOUR_ROLES.map((role) => [role, colourSchema])) as Record<
  (typeof COLOUR_ROLES)[number],
  typeof colourSchema
>;
export const paletteSchema = z.strictObject(colours);
export type Palette = z.infer<typeof paletteSchema>;

/** What a site's messages look like unless they say otherwise. Lengths are CSS pixels. */
export const lookStyleSchema = z.strictObject({
  palette: paletteSchema,
  fonts: z.strictObject({ text: z.enum(FONTS), heading: z.enum(FONTS) }),
  textSize: z.number().int().min(13).max(24),
  /** Each step of the type scale is this much larger than the one below, per cent. */
  scale: z.number().int().min(105).max(160),
  corners: z.strictObject({ box: z.number().int().min(0).max(60), control: z.number().int().min(0).max(60) }),
  shadow: z.enum(SHADOWS),
  buttons: z.enum(['solid', 'outline', 'soft']),
  fields: z.enum(['boxed', 'filled', 'ruled']),
});
export type LookStyle = z.infer<typeof lookStyleSchema>;

export const lookSchema = z.strictObject({
  id: z.uuid(),
  name: z.string(),
  /** The one messages follow that name none. */
  isDefault: z.boolean(),
  style: lookStyleSchema,
});
export type Look = z.infer<typeof lookSchema>;

/** What a page's own sheets say of how it looks, before it is taken for a Look. */
export const readLookSchema = z.strictObject({ path: z.string().regex(/^\//, 'start with /').max(2048) });
export const lookReadSchema = z.strictObject({
  style: lookStyleSchema,
  /** What the page said; the rest is as it is in the Look it began from. */
  read: z.array(z.string()),
});
export type LookRead = z.infer<typeof lookReadSchema>;

export const saveLookSchema = z.strictObject({
  name: z.string().trim().min(1, 'give it a name').max(80, 'keep it to 80 characters'),
  style: lookStyleSchema,
});
export type SaveLook = z.infer<typeof saveLookSchema>;
