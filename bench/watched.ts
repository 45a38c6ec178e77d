/** What a page tells of itself once {@link WATCH} runs in it. */
export interface Watched {
  /** Milliseconds of its longest task, 0 where none was long. */
  readonly longest: number;
  /** Sum of its layout shifts. */
  readonly shift: number;
  /** Milliseconds until its largest paint. */
  readonly paint: number;
}

/** Plain script, since what is compiled here may lean on helpers that a page does not have. */
export const WATCH = `
  const seen = window.seen = { longest: 0, shift: 0, paint: 0 };
  const watch = (type, take) =>
    new PerformanceObserver((list) => list.getEntries().forEach(take)).observe({ type, buffered: true });
  watch('longtask', ({ duration }) => { seen.longest = Math.max(seen.longest, duration); });
  watch('layout-shift', ({ value }) => { seen.shift += value; });
  watch('largest-contentful-paint', ({ startTime }) => { seen.paint = startTime; });`;
