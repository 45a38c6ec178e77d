import { normalDensity, normalQuantile, normalTail } from './normal.ts';

/** Points at which the density between two looks is known; even, for Simpson's rule. */
const POINTS = 400;
const CLOSE = 1e-9;
/** Nothing is spent beyond: so far out no look has a boundary. */
const MOST_Z = 8;
/** Looks that add less than this share of the plan are no looks of their own. */
export const LEAST_STEP = 0.002;

/**
 * The error spent on one side by the time a share of the plan has been seen: little early, nearly all at the end.
 *
 * Source: Lan and DeMets (1983), "Discrete sequential boundaries for clinical trials", the O'Brien-Fleming type.
 */
const spentBy = (share: number, oneSided: number): number =>
  2 * normalTail(normalQuantile(1 - oneSided / 2) / Math.sqrt(share));

interface Density {
  readonly from: number;
  readonly step: number;
  /** Each value times its weight in Simpson's rule. */
  readonly weighed: Float64Array;
}

/** Densities are the same on both sides of nought, so one half of the values is enough. */
function densityOn(bound: number, valueAt: (score: number) => number): Density {
  const step = (2 * bound) / POINTS;
  const weighed = new Float64Array(POINTS + 1);
  for (let n = 0; n <= POINTS / 2; n++) {
    const weight = n === 0 ? 1 : n % 2 === 1 ? 4 : 2;
    weighed[n] = (valueAt(-bound + n * step) * weight * step) / 3;
    weighed[POINTS - n] = weighed[n] as number;
  }
  return { from: -bound, step, weighed };
}

/** Sums over the scores within `reach` of a middle; further off the kernel is nothing. */
function over(
  { from, step, weighed }: Density,
  of: (score: number) => number,
  middle: number,
  reach: number,
): number {
  const first = Math.max(0, Math.ceil((middle - reach - from) / step));
  const last = Math.min(POINTS, Math.floor((middle + reach - from) / step));
  let sum = 0;
  for (let n = first; n <= last; n++) sum += (weighed[n] as number) * of(from + n * step);
  return sum;
}

/** They take a tenth of a second, and are asked for again with every look at the same days. */
const found = new Map<string, readonly number[]>();
const MOST_FOUND = 64;

/**
 * The z a difference must pass at each look, so that all looks together err no more often than `alpha`. To the share of
 * the plan that has been seen at each look, rising, at most 1; looks closer than {@link LEAST_STEP} are left to the
 * caller. Found by integrating the density of the score from look to look.
 *
 * Source: Armitage, McPherson and Rowe (1969), "Repeated significance tests on accumulating data".
 */
export function spendingBoundaries(shares: readonly number[], alpha: number): readonly number[] {
  const key = `${alpha} ${shares.join(' ')}`;
  const known = found.get(key);
  if (known) return known;
  if (found.size >= MOST_FOUND) found.clear();
  const bounds = integrate(shares, alpha);
  found.set(key, bounds);
  return bounds;
}

function integrate(shares: readonly number[], alpha: number): number[] {
  const oneSided = alpha / 2;
  const bounds: number[] = [];
  let density: Density | undefined;
  let [spent, before] = [0, 0];
  for (const share of shares) {
    const spread = Math.sqrt(share - before);
    const toSpend = spentBy(share, oneSided) - spent;
    const known = density;
    const reach = MOST_Z * spread;
    const valueAt = (score: number): number =>
      known
        ? over(known, (old) => normalDensity((score - old) / spread), score, reach) / spread
        : normalDensity(score / spread) / spread;
    const beyond = (bound: number): number =>
      known
        ? over(known, (score) => normalTail((bound - score) / spread), bound, reach)
        : normalTail(bound / spread);
    // Newton's steps, kept between what is surely too low and surely too high.
    let [low, high] = [0, MOST_Z * Math.sqrt(share)];
    let bound = Math.min(high, (bounds.at(-1) ?? MOST_Z) * Math.sqrt(share));
    for (let step = 0; step < 100 && high - low > CLOSE; step++) {
      const off = beyond(bound) - toSpend;
      if (off > 0) low = bound;
      else high = bound;
      const slope = valueAt(bound);
      const next = bound + (slope > 0 ? off / slope : 0);
      const isWithin = next > low && next < high;
      if (isWithin && Math.abs(next - bound) < CLOSE) {
        bound = next;
        break;
      }
      bound = isWithin ? next : (low + high) / 2;
    }
    density = densityOn(bound, valueAt);
    bounds.push(bound / Math.sqrt(share));
    spent += toSpend;
    before = share;
  }
  return bounds;
}
