import { z } from 'zod';
import { colourSchema } from './message/style.ts';

/** What a part of a message is from afar. */
export const MINIATURE_PARTS = ['picture', 'heading', 'text', 'field', 'button', 'line'] as const;
export type MiniaturePart = (typeof MINIATURE_PARTS)[number];

/** A message from afar: where its box stands in a desktop window, in which colours, and what is in it. */
export const miniatureSchema = z.strictObject({
  /** Width of the box, of the window's. */
  width: z.number().min(0).max(1),
  ground: colourSchema,
  ink: colourSchema,
  accent: colourSchema,
  /** Whether the page behind is darkened. */
  hasVeil: z.boolean(),
  /** From the top: each row its columns side by side, each column its parts. */
  rows: z.array(z.array(z.array(z.enum(MINIATURE_PARTS)))),
});
export type Miniature = z.infer<typeof miniatureSchema>;
