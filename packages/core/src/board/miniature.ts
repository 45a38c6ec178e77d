import type { Block, LookStyle, Message, Miniature, MiniaturePart } from '@velarium/contract';
import { boxStyle, boxWidth, colourOf, paletteOf } from '../look/resolve.ts';
import { isInterrupting } from '../message/placement.ts';

/** CSS pixels of a desktop window. */
const WINDOW_WIDTH = 1280;
/** Further ones could not be told apart. */
const MOST_ROWS = 7;
const MOST_FIELDS = 3;

function partsOf(block: Block): readonly MiniaturePart[] {
  switch (block.kind) {
    case 'picture':
    case 'film':
    case 'frame':
      return ['picture'];
    case 'heading':
    case 'countdown':
      return ['heading'];
    case 'button':
    case 'share':
      return ['button'];
    case 'form':
      return [...block.fields.slice(0, MOST_FIELDS).map(() => 'field' as const), 'button'];
    case 'code':
      return ['field'];
    case 'divider':
      return ['line'];
    case 'columns':
    case 'space':
      return [];
    default:
      return ['text'];
  }
}

/** What a message looks like from afar, in its own colours, on a desktop. */
export function miniatureOf(message: Message, look: LookStyle): Miniature {
  const box = boxStyle(message, look, 'desktop');
  const palette = paletteOf(message, look);
  const { ground } = box;
  const rows = (message.steps[0]?.blocks ?? [])
    .map((block) =>
      block.kind === 'columns'
        ? block.columns.map(({ blocks }) => blocks.flatMap(partsOf).slice(0, MOST_ROWS))
        : [[...partsOf(block)]],
    )
    .filter((columns) => columns.some((parts) => parts.length > 0));
  return {
    width: boxWidth(box, WINDOW_WIDTH) / WINDOW_WIDTH,
    ground: colourOf(
      ground.kind === 'colour' ? ground.colour : ground.kind === 'gradient' ? ground.from : ground.tint,
      palette,
    ),
    ink: colourOf(box.colour, palette),
    accent: palette.accent,
    hasVeil: isInterrupting(message.format) && box.backdropStrength > 0,
    rows: rows.slice(0, MOST_ROWS),
  };
}
