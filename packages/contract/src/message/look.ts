import { z } from 'zod';
import { COLOUR_ROLES, FONTS, SHADOWS } from '../values.ts';
import { colourSchema } from './style.ts';

const colours = Object.fromEntries(COLOUR_ROLES.map((role) => [role, colourSchema])) as Record<
  (typeof COLOUR_ROLES)[number],
  typeof colourSchema
>;
export const paletteSchema = z.strictObject(colours);
export type Palette = z.infer<typeof paletteSchema>;

/** One family as CSS writes it: a few words, or anything in double quotes. Source: CSS Fonts Level 4, `font-family`. */
const FAMILY = String.raw`(?:"[^"\\{}<>;\n]{1,80}"|-?[A-Za-z][\w-]*(?: [\w-]+){0,5})`;
/**
 * What words are set in: a kind of letters that every device has, or families as CSS names them, the first that is there. Those
 * a page loads for itself are there; those of the site's own are loaded with the message (see `lettersFamily`).
 */
export const fontSchema = z
  .string()
  .max(400)
  .regex(
    new RegExp(`^${FAMILY}(?:, ?${FAMILY}){0,11}$`),
    'name families as CSS does: Georgia, "Two words", serif',
  );

/** The name by which a message asks for letters that were brought to its site. */
export const lettersFamily = (id: string): string => `velarium ${id}`;
export const lettersIdSchema = z.string().regex(/^[0-9a-f]{16}$/);
/** Letters of a site: the product's own and those its team has brought are loaded with messages; those found on its pages load there. */
export const lettersSchema = z.strictObject({
  id: lettersIdSchema,
  name: z.string(),
  /** By which a sheet asks for them. */
  family: z.string(),
  like: z.enum(FONTS),
  /** From the lightest to the heaviest they can be. */
  weights: z.tuple([z.number().int(), z.number().int()]),
  /** By what right they are used; of the product's own what they are called by their makers. */
  licence: z.string(),
  from: z.enum(['team', 'product', 'pages']),
  bytes: z.number().int(),
});
export type Letters = z.infer<typeof lettersSchema>;
/** What goes with a file of letters. */
export const bringLettersSchema = z.strictObject({
  name: z.string().trim().min(1, 'give them a name').max(80, 'keep it to 80 characters'),
  like: z.enum(FONTS),
  licence: z.string().trim().min(1, 'say by what right they are used').max(200, 'keep it to 200 characters'),
});
export type BringLetters = z.infer<typeof bringLettersSchema>;

/** What a site's messages look like unless they say otherwise. Lengths are CSS pixels. */
export const lookStyleSchema = z.strictObject({
  palette: paletteSchema,
  fonts: z.strictObject({ text: fontSchema, heading: fontSchema }),
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
