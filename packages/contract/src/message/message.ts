import { z } from 'zod';
import { ANCHORS, FORMATS, LIMITS, MESSAGE_PARTS } from '../values.ts';
import { blockIdSchema, blockSchema } from './blocks.ts';
import { languagesSchema, languageTagSchema } from './languages.ts';
import { paletteSchema } from './look.ts';
import { colourValueSchema, motionSchema, pictureRefSchema, styledSchema } from './style.ts';
import { line } from './text.ts';

export const stepSchema = z.strictObject({
  id: blockIdSchema,
  /** `first` opens; `success` follows a sent form, `refused` a no; others are reached by buttons. */
  role: z.enum(['first', 'success', 'refused', 'other']),
  blocks: z.array(blockSchema).max(LIMITS.blocksPerStep),
});
export type Step = z.infer<typeof stepSchema>;
export type StepRole = Step['role'];

/** The way out. Escape closes too, whatever is said here. */
export const closeSchema = z.strictObject({
  place: z.enum(['inside', 'outside', 'edge', 'hidden']),
  corner: z.enum(['start', 'end']),
  sign: z.enum(['cross', 'word', 'picture']),
  /** Read out where a picture is shown. */
  word: line(40),
  picture: pictureRefSchema.nullable(),
  /** CSS pixels; WCAG 2.2, 2.5.8 asks for 24 at least. */
  size: z.number().int().min(24).max(72),
  colour: colourValueSchema,
  hoverColour: colourValueSchema,
  /** `null` is none. */
  ground: colourValueSchema.nullable(),
  /** Comes this late; at once at 0. */
  delaySeconds: z.number().int().min(0).max(LIMITS.closeDelaySeconds),
  /** Seen while a pointer is over the box or the focus is in it; always on devices without a pointer. */
  onHover: z.boolean(),
  /** What closing says: not now, or no. */
  means: z.enum(['later', 'no']),
  /** Closes by itself after this long; `null` never. */
  afterSeconds: z.number().int().min(2).max(3600).nullable(),
});
export type Close = z.infer<typeof closeSchema>;

/** Says what is wrong with the steps and blocks of a message together, where each by itself is right. */
function checkSteps(steps: readonly Step[], context: z.RefinementCtx): void {
  const fault = (path: (string | number)[], message: string) =>
    context.addIssue({ code: 'custom', path, message });
  if (steps[0]?.role !== 'first') fault([0, 'role'], 'a message begins with its first step');
  const seenSteps = new Set<string>();
  const seenBlocks = new Set<string>();
  steps.forEach((step, n) => {
    if (n > 0 && step.role === 'first') fault([n, 'role'], 'a message has one first step');
    if (seenSteps.has(step.id)) fault([n, 'id'], `another step is called ${step.id}`);
    seenSteps.add(step.id);
    const ids = step.blocks.flatMap((block) => [
      block.id,
      ...(block.kind === 'columns' ? block.columns.flatMap(({ blocks }) => blocks.map(({ id }) => id)) : []),
    ]);
    for (const id of ids) {
      if (seenBlocks.has(id)) fault([n, 'blocks'], `another block is called ${id}`);
      seenBlocks.add(id);
    }
  });
}

/** One message: a validated document of steps and blocks, never markup to be trusted. */
export const messageSchema = z.strictObject({
  format: z.enum(FORMATS),
  anchor: z.enum(ANCHORS),
  /** The Look it follows; the site's own where `null`. */
  look: z.uuid().nullable(),
  /** Colours of its own in place of the Look's. */
  palette: paletteSchema.partial(),
  /** Whether its colours darken where the visitor’s device asks for dark pages. */
  darkens: z.boolean(),
  style: styledSchema,
  close: closeSchema,
  motion: z.strictObject({ enter: motionSchema, leave: motionSchema }),
  /** Whether a click beside a modal closes it. */
  backdropCloses: z.boolean(),
  /** Whether the page behind stands still. */
  holdsPage: z.boolean(),
  /** A bar only: the page makes room for it, or it lies over the page. */
  pushesPage: z.boolean(),
  /** A bar only: stays in sight while the page is scrolled. */
  isSticky: z.boolean(),
  /** Which way its texts run; as the page's where nothing is said. */
  direction: z.enum(['ltr', 'rtl']).optional(),
  /** What it is written in, and its texts in other languages; nothing is said of languages where it is missing. */
  languages: languagesSchema.optional(),
  /** What a screen reader calls the box when it has no heading. */
  label: line(120),
  steps: z.array(stepSchema).min(1).max(LIMITS.steps).superRefine(checkSteps),
});
export type Message = z.infer<typeof messageSchema>;

/** A picture as a page loads it; `widths` are those it can be had in, and none where it scales by itself. */
export const pictureFileSchema = z.strictObject({
  path: line(200),
  width: z.number().int(),
  height: z.number().int(),
  widths: z.array(z.number().int()),
});
export type PictureFile = z.infer<typeof pictureFileSchema>;
export type Pictures = Readonly<Record<z.infer<typeof pictureRefSchema>, PictureFile>>;

/** Names a message file by its content: 128 bits of SHA-256 in hex. */
export const messageHashSchema = z.string().regex(/^[0-9a-f]{32}$/);

/** A message as pages load it: the sheet it is drawn with is made when it is published. */
export const messageFileSchema = z.strictObject({
  message: messageSchema,
  sheet: z.string(),
  pictures: z.record(pictureRefSchema, pictureFileSchema),
  /** What must be loaded beside the renderer to draw it. */
  parts: z.array(z.enum(MESSAGE_PARTS)),
  /** What it is written in, where the message has several languages. */
  language: languageTagSchema.optional(),
  /** What it says of itself in that language; in English where a word is missing. */
  words: z.record(z.string().max(20), line(20_000)).optional(),
});
export type MessageFile = z.infer<typeof messageFileSchema>;
