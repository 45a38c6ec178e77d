import { z } from 'zod';
import { ANCHORS, COLOUR_ROLES, DIRECTIONS, EASINGS, MOTIONS, SHADOWS, SIDES_OF_PICTURE } from '../values.ts';

export const colourSchema = z.string().regex(/^#[0-9a-f]{6}$/, 'use six hex digits, for example #1f3a5f');
/** A role of the Look, or a colour of its own. */
export const colourValueSchema = z.union([z.enum(COLOUR_ROLES), colourSchema]);
export type ColourValue = z.infer<typeof colourValueSchema>;

/** A picture of the site's library by its id, or one of those that come with Velarium: `drawn:aurora`. */
export const pictureRefSchema = z
  .string()
  .regex(
    /^(drawn:[a-z-]{1,40}|[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12})$/,
    'choose a picture of the library',
  );

const px = (max: number) => z.number().int().min(0).max(max);

/** A length: CSS pixels, per cent of the window, or as large as what it holds. */
export const sizeSchema = z.discriminatedUnion('unit', [
  z.strictObject({ unit: z.literal('px'), value: px(2000) }),
  z.strictObject({ unit: z.literal('percent'), value: z.number().int().min(1).max(100) }),
  z.strictObject({ unit: z.literal('content') }),
]);
export type Size = z.infer<typeof sizeSchema>;

export const groundSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('colour'), colour: colourValueSchema }),
  z.strictObject({
    kind: z.literal('gradient'),
    from: colourValueSchema,
    to: colourValueSchema,
    degrees: z.number().int().min(0).max(359),
  }),
  z.strictObject({
    kind: z.literal('picture'),
    picture: pictureRefSchema,
    /** The point kept in sight when the picture is cropped, per cent from the upper left. */
    focus: z.tuple([px(100), px(100)]),
    tint: colourValueSchema,
    /** Per cent of the tint laid over the picture. */
    strength: px(100),
  }),
]);
export type Ground = z.infer<typeof groundSchema>;

/**
 * What can be set on the box and on each block; what is absent is as the format and the Look say. Lengths are CSS
 * pixels.
 */
export const styleSchema = z
  .strictObject({
    hidden: z.boolean(),
    /** Of the box, for a tablet or a phone: what the message says for all, otherwise. */
    anchor: z.enum(ANCHORS),
    backdropCloses: z.boolean(),
    holdsPage: z.boolean(),
    pushesPage: z.boolean(),
    isSticky: z.boolean(),
    width: sizeSchema,
    height: sizeSchema,
    leastWidth: px(2000),
    mostWidth: px(2000),
    leastHeight: px(2000),
    mostHeight: px(2000),
    /** From the edges of the window. */
    offsetBlock: px(400),
    offsetInline: px(400),
    /** Above a block; between the blocks of the box. */
    space: px(200),
    paddingBlock: px(200),
    paddingInline: px(200),
    align: z.enum(['start', 'center', 'end']),
    colour: colourValueSchema,
    ground: groundSchema,
    borderWidth: px(20),
    borderColour: colourValueSchema,
    corners: px(200),
    shadow: z.enum(SHADOWS),
    textSize: z.number().int().min(10).max(96),
    weight: z.enum(['normal', 'strong']),
    hoverColour: colourValueSchema,
    hoverGround: colourValueSchema,
    /** Where a picture stands: in the flow of the blocks, or as one whole side of the box. */
    side: z.enum(SIDES_OF_PICTURE),
    backdropColour: colourValueSchema,
    /** Per cent. */
    backdropStrength: px(100),
    backdropBlur: px(40),
    /** CSS declarations of one's own; what core does not allow of them is not used. */
    own: z.string().max(300),
  })
  .partial();
export type Style = z.infer<typeof styleSchema>;
export type StyleKey = keyof Style;

/** Set once for all devices; a tablet and a phone may differ in single things. */
export const styledSchema = z.strictObject({ all: styleSchema, tablet: styleSchema, mobile: styleSchema });
export type Styled = z.infer<typeof styledSchema>;

export const motionSchema = z.strictObject({
  kind: z.enum(MOTIONS),
  from: z.enum(DIRECTIONS),
  /** How far it travels, CSS pixels; `null` from beyond the window's edge. */
  distance: px(1000).nullable(),
  ms: z.number().int().min(0).max(4000),
  delayMs: z.number().int().min(0).max(4000),
  easing: z.enum(EASINGS),
});
export type Motion = z.infer<typeof motionSchema>;
