import type { Difference } from './difference.ts';

const Z_95 = 1.959963984540054;

/** Pairs of yes and no: how many there are, and in how many the second says yes where the first says no, and the other way. */
export interface PairCounts {
  readonly pairs: number;
  readonly gained: number;
  readonly lost: number;
}

/**
 * How much oftener the second says yes than the first, of pairs, with its 95 % interval. Pairs that agree say nothing of it,
 * so it is far narrower than that of two rates that have nothing to do with one another.
 *
 * Source: Bonett and Price (2012), "Adjusted Wald confidence interval for a difference of binomial proportions based on
 * paired data": one more of each kind of pair that differs.
 */
export function pairedDifference({ pairs, gained, lost }: PairCounts): Difference {
  if (pairs === 0) return { value: null, low: -1, high: 1 };
  const [more, less] = [(gained + 1) / (pairs + 2), (lost + 1) / (pairs + 2)];
  const middle = more - less;
  const half = Z_95 * Math.sqrt((more + less - middle ** 2) / (pairs + 2));
  return {
    value: (gained - lost) / pairs,
    low: Math.max(-1, middle - half),
    high: Math.min(1, middle + half),
  };
}
