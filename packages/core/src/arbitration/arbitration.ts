/** Messages lie on cells of the window, and two on one cell would lie on one another. */
export interface Placed {
  /** On a desktop, a tablet and a phone; see {@link cellsOf}. */
  readonly cells: readonly [number, number, number];
}

const AT = { desktop: 0, tablet: 1, mobile: 2 } as const;

/** Whether a message may open beside those that are open. One that interrupts takes the whole window. */
export function hasRoom(message: Placed, open: readonly Placed[], device: keyof typeof AT): boolean {
  const at = AT[device];
  return open.every((other) => (message.cells[at] & other.cells[at]) === 0);
}
