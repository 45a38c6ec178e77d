/** How long page views last and how far they go, counted in buckets: each begins at one of these. */
export const STAY_SECONDS = [
  0, 1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 90, 120, 180, 240, 300, 420, 600, 900, 1800,
  3600,
] as const;
/** Per cent of the page. */
export const STAY_DEPTHS = [
  0, 5, 10, 15, 20, 25, 30, 35, 40, 45, 50, 55, 60, 65, 70, 75, 80, 85, 90, 95, 100,
] as const;

/** Page views in each bucket. */
export type Histogram = readonly number[];

/** A point of a curve: the share of page views, 0 to 1, that came at least this far. */
export interface CurvePoint {
  readonly at: number;
  readonly share: number;
}

/** How many page views a curve is drawn from. */
export const countedIn = (histogram: Histogram): number => histogram.reduce((sum, count) => sum + count, 0);

/**
 * The share of page views that are still there at the beginning of each bucket. Nothing is known of where within its bucket
 * a page view ended, so it counts as there until the bucket's beginning and no further.
 */
export function survivalCurve(histogram: Histogram, edges: readonly number[]): CurvePoint[] {
  const total = countedIn(histogram);
  if (total === 0) return [];
  let gone = 0;
  return edges.map((at, n) => {
    const share = (total - gone) / total;
    gone += histogram[n] ?? 0;
    return { at, share };
  });
}

/** The share still there at a point, read off between two edges as a straight line; `undefined` without page views. */
export function shareAt(curve: readonly CurvePoint[], at: number): number | undefined {
  const after = curve.findIndex((point) => point.at >= at);
  const last = curve.at(-1);
  if (!last) return undefined;
  if (after < 0) return last.share;
  const [a, b] = [curve[after - 1], curve[after] as CurvePoint];
  if (!a || b.at === at) return b.share;
  return a.share + ((b.share - a.share) * (at - a.at)) / (b.at - a.at);
}

/** How far half of all page views come: the last edge that half of them reach; `undefined` without page views. */
export function usualStay(histogram: Histogram, edges: readonly number[]): number | undefined {
  return survivalCurve(histogram, edges)
    .filter(({ share }) => share >= 0.5)
    .at(-1)?.at;
}

/** By when the last of all page views had ended; `null` where nothing is known of that, or where some last longer than is told apart. */
export function longestStay(histogram: Histogram, edges: readonly number[]): number | null {
  const last = histogram.reduce((found, count, n) => (count > 0 ? n : found), -1);
  return last < 0 ? null : (edges[last + 1] ?? null);
}
