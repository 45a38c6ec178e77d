import type { Anchor, Device, Format } from '@velarium/contract';
import { isInterrupting } from '../message/placement.ts';

export interface Placed {
  readonly format: Format;
  readonly anchor: Anchor;
}

/** The window in nine cells, a bit each, row by row from the upper start. */
const ROW = { top: 0b000000111, middle: 0b000111000, bottom: 0b111000000 } as const;
const COLUMN = { start: 0b001001001, center: 0b010010010, end: 0b100100100 } as const;
const ALL = 0b111111111;

/**
 * The cells of the window a message can lie on. On a phone every box is as wide as the window, so it takes its
 * whole row.
 */
export function cellsOf({ format, anchor }: Placed, device: Device): number {
  if (isInterrupting(format)) return ALL;
  const row = anchor.startsWith('top') ? ROW.top : anchor.startsWith('bottom') ? ROW.bottom : ROW.middle;
  const column = anchor.endsWith('start')
    ? COLUMN.start
    : anchor.endsWith('end')
      ? COLUMN.end
      : COLUMN.center;
  if (format === 'bar') return row;
  if (format === 'slidein')
    return anchor === 'top' || anchor === 'bottom' ? row : device === 'mobile' ? ALL : column;
  return device === 'mobile' ? row : row & column;
}

/** Whether a message may open beside those that are open: one interrupting at a time, and boxes never overlap. */
export function hasRoom(message: Placed, open: readonly Placed[], device: Device): boolean {
  if (isInterrupting(message.format) && open.some(({ format }) => isInterrupting(format))) return false;
  const cells = cellsOf(message, device);
  return open.every((other) => (cells & cellsOf(other, device)) === 0);
}
