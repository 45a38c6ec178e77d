import type { Device, Message } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import { placedOn } from '../look/resolve.ts';
import { isInterrupting } from '../message/placement.ts';
import type { Placed } from './arbitration.ts';

/** The window in nine cells, a bit each, row by row from the upper start. */
const ROW = { top: 0b000000111, middle: 0b000111000, bottom: 0b111000000 } as const;
const COLUMN = { start: 0b001001001, center: 0b010010010, end: 0b100100100 } as const;
const ALL = 0b111111111;

export type PlacedMessage = Pick<Message, 'format' | 'anchor' | 'style'>;

/**
 * The cells of the window a message can lie on. On a phone every box is as wide as the window, so it takes its
 * whole row.
 */
function cellsOn(message: PlacedMessage, device: Device): number {
  const { format } = message;
  if (isInterrupting(format)) return ALL;
  const anchor = placedOn(message, 'anchor', device);
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

/** Every cell that one of a campaign's messages can lie on, on each device. */
export const cellsOf = (messages: readonly PlacedMessage[]): Placed['cells'] => {
  const on = (device: Device): number => messages.reduce((cells, one) => cells | cellsOn(one, device), 0);
  return DEVICES.map(on) as [number, number, number];
};
