import { BUCKETS } from '@velarium/contract/values';

/** Buckets from the first to the one before the second. */
export type BucketRange = readonly [from: number, to: number];
/** Which of {@link BUCKETS} each variant has; together all of them, none twice. */
export type Allotment = Readonly<Record<string, readonly BucketRange[]>>;

interface Share {
  readonly id: string;
  /** Relative to the others. */
  readonly weight: number;
}

/** How many buckets each share comes to, by largest remainders, so that they add up. */
function bucketsOf(shares: readonly Share[]): Map<string, number> {
  const total = shares.reduce((sum, { weight }) => sum + weight, 0);
  if (total <= 0) return new Map(shares.map(({ id }) => [id, 0]));
  const exact = shares.map(({ id, weight }) => ({ id, buckets: (weight * BUCKETS) / total }));
  const whole = new Map(exact.map(({ id, buckets }) => [id, Math.floor(buckets)]));
  let left = BUCKETS - [...whole.values()].reduce((sum, count) => sum + count, 0);
  const byRemainder = [...exact].sort((a, b) => (b.buckets % 1) - (a.buckets % 1));
  for (const { id } of byRemainder) {
    if (left-- <= 0) break;
    whole.set(id, (whole.get(id) ?? 0) + 1);
  }
  return whole;
}

/**
 * Shares out the buckets, changing as few as can be of what was shared out before: who loses gives up just what they
 * lose, who wins takes just that, and nobody is moved between two that keep theirs. Without a before they stand one
 * after the other in the order of `shares`.
 */
export function allot(shares: readonly Share[], before: Allotment = {}): Allotment {
  const wanted = bucketsOf(shares);
  const free: BucketRange[] = [];
  const kept = new Map<string, BucketRange[]>();
  let covered = 0;
  for (const [id, ranges] of Object.entries(before)) {
    let left = wanted.get(id) ?? 0;
    const own: BucketRange[] = [];
    for (const [from, to] of ranges) {
      const keeps = Math.min(left, to - from);
      if (keeps > 0) own.push([from, from + keeps]);
      if (keeps < to - from) free.push([from + keeps, to]);
      left -= keeps;
      covered += to - from;
    }
    kept.set(id, own);
  }
  if (covered === 0) free.push([0, BUCKETS]);
  for (const { id } of shares) {
    const own = kept.get(id) ?? [];
    let missing = (wanted.get(id) ?? 0) - own.reduce((sum, [from, to]) => sum + to - from, 0);
    while (missing > 0) {
      const [from, to] = free.shift() as BucketRange;
      const taken = Math.min(missing, to - from);
      own.push([from, from + taken]);
      if (taken < to - from) free.unshift([from + taken, to]);
      missing -= taken;
    }
    kept.set(id, joined(own));
  }
  return Object.fromEntries(shares.map(({ id }) => [id, kept.get(id) ?? []]));
}

/** The same buckets in as few ranges as they have. */
function joined(ranges: readonly BucketRange[]): BucketRange[] {
  const out: BucketRange[] = [];
  for (const [from, to] of [...ranges].sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last && last[1] === from) out[out.length - 1] = [last[0], to];
    else out.push([from, to]);
  }
  return out;
}
