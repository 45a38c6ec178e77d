import type { Interval } from '@velarium/core';

/** Where an instant lies in a window, per cent from its left. */
export const placeOf = (atMs: number, [fromMs, toMs]: Interval): number =>
  ((Math.min(toMs, Math.max(fromMs, atMs)) - fromMs) / (toMs - fromMs)) * 100;

/** Where a stretch of time lies in a window. */
export const barOf = ([fromMs, toMs]: Interval, window: Interval) => ({
  left: `${placeOf(fromMs, window)}%`,
  width: `${placeOf(toMs, window) - placeOf(fromMs, window)}%`,
});
