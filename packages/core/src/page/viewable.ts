/** How long half of a message must be on screen, without a break. */
export const VIEWABLE_MS = 1000;

export interface ViewableState {
  /**
   * Takes in whether half of the message is on screen, on a page that is in sight, from now on. Answers whether it had
   * been for long enough by now: a tab that hides at that very moment takes nothing away.
   */
  see(isSeen: boolean, atMs: number): boolean;
  /** Milliseconds until it will be viewable if nothing changes; `Infinity` while it is not seen. */
  remainingMs(atMs: number): number;
}

/** Source: MRC viewable-impression guideline (display): half of it, for one continuous second. */
export function createViewable(): ViewableState {
  let sinceMs = Number.POSITIVE_INFINITY;
  return {
    see(isSeen, atMs) {
      const isViewable = atMs - sinceMs >= VIEWABLE_MS;
      if (!isSeen) sinceMs = Number.POSITIVE_INFINITY;
      else if (sinceMs > atMs) sinceMs = atMs;
      return isViewable;
    },
    remainingMs: (atMs) => VIEWABLE_MS - (atMs - sinceMs),
  };
}
