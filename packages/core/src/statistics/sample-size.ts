import { normalQuantile } from './normal.ts';

export interface SizeQuestion {
  /** The rate there is, and the one worth noticing, 0 to 1. */
  readonly rate: number;
  readonly wanted: number;
  /** Two-sided error, 0.05; and the chance to notice, 0.8. */
  readonly alpha?: number;
  readonly power?: number;
}

/**
 * Visitors each side needs for a difference to be noticed; `null` where there is none to notice.
 *
 * Source: Fleiss, Levin and Paik (2003), "Statistical methods for rates and proportions", 4.14 without continuity
 * correction: pooled variance under no difference.
 */
export function visitorsASide({ rate, wanted, alpha = 0.05, power = 0.8 }: SizeQuestion): number | null {
  if (rate === wanted || !(rate >= 0 && rate <= 1 && wanted >= 0 && wanted <= 1)) return null;
  const pooled = (rate + wanted) / 2;
  const spread =
    normalQuantile(1 - alpha / 2) * Math.sqrt(2 * pooled * (1 - pooled)) +
    normalQuantile(power) * Math.sqrt(rate * (1 - rate) + wanted * (1 - wanted));
  return Math.ceil((spread / (wanted - rate)) ** 2);
}
