import type { Block, Device, LookStyle, Message, Step } from '@velarium/contract';
import { boxStyle, boxWidth, styleOn } from '../look/resolve.ts';
import { textsOf } from './text-of.ts';

/** Windows that stand for their kind, CSS pixels; the stage shows them at these sizes. */
export const WINDOW_OF: Readonly<Record<Device, { readonly width: number; readonly height: number }>> = {
  desktop: { width: 1280, height: 800 },
  tablet: { width: 820, height: 1180 },
  mobile: { width: 390, height: 844 },
};

/** Average width of a letter, in parts of its size (common practice for text faces). */
const LETTER = 0.5;

function blockHeight(block: Block, width: number, look: LookStyle, device: Device): number {
  const style = styleOn(block.style, device);
  if (style.hidden) return 0;
  if (style.height?.unit === 'px') return style.height.value;
  const lines = (size: number) =>
    textsOf(block).reduce(
      (sum, text) => sum + Math.max(1, Math.ceil((text.length * size * LETTER) / width)),
      0,
    );
  const text = (size: number, leading: number) =>
    lines(size) * size * leading + 2 * (style.paddingBlock ?? 0);
  switch (block.kind) {
    case 'heading':
      return text(style.textSize ?? look.textSize * 1.5, 1.2);
    case 'text':
      return text(style.textSize ?? look.textSize * (block.size === 'small' ? 0.8125 : 1), 1.5);
    case 'picture':
      return width / ((block.ratio ?? 160) / 100);
    case 'form':
      return (
        block.fields.filter(({ kind }) => kind !== 'hidden').length * 78 + 56 + (block.consentText ? 52 : 0)
      );
    case 'film':
      return width / (block.ratio / 100);
    case 'frame':
    case 'html':
    case 'space':
      return block.height;
    case 'share':
      return Math.ceil(block.ways.length / block.columns) * 52;
    case 'divider':
      return 1;
    case 'columns': {
      const total = block.columns.reduce((sum, { share }) => sum + share, 0);
      return Math.max(
        ...block.columns.map(({ share, blocks }) =>
          stackHeight(blocks, (width * share) / total, look, device),
        ),
      );
    }
    default:
      return 48;
  }
}

const stackHeight = (blocks: readonly Block[], width: number, look: LookStyle, device: Device): number =>
  blocks.reduce((sum, block) => sum + blockHeight(block, width, look, device) + 14, 0);

/** A box that leaves the page usable should leave this much of a phone's window free. */
export const MOST_COVERED = 0.45;

/**
 * About how much of a window a step covers, 0 to 1, reckoned from its texts and sizes: good enough to warn by, and the
 * same wherever it is asked.
 */
export function coverage(message: Message, step: Step, look: LookStyle, device: Device): number {
  const window = WINDOW_OF[device];
  const box = boxStyle(message, look, device);
  const width = boxWidth(box, window.width);
  const wanted =
    box.height.unit === 'px'
      ? box.height.value
      : box.height.unit === 'percent'
        ? (window.height * box.height.value) / 100
        : stackHeight(step.blocks, width - 2 * box.paddingInline, look, device) + 2 * box.paddingBlock;
  const height = Math.min(window.height, Math.max(box.leastHeight, Math.min(box.mostHeight, wanted)));
  return (width * height) / (window.width * window.height);
}
