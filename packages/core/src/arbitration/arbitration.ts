import type { Device } from '@velarium/contract';
import { DEVICE_AT } from '../devices/device.ts';

/** Messages lie on cells of the window, and two on one cell would lie on one another. */
export interface Placed {
  /** On a desktop, a tablet and a phone; see {@link cellsOf}. */
  readonly cells: readonly [number, number, number];
}

/** Whether a message may open beside those that are open. One that interrupts takes the whole window. */
export function hasRoom(message: Placed, open: readonly Placed[], device: Device): boolean {
  const at = DEVICE_AT[device];
  return open.every((other) => (message.cells[at] & other.cells[at]) === 0);
}
