import type { ConversionCounts } from './conversion-rate.ts';
import { conversionRate } from './conversion-rate.ts';

/** A difference of two rates, in shares of 1, with its 95 % interval. */
export interface Difference {
  /** `null` where either has no visitor. */
  readonly value: number | null;
  readonly low: number;
  readonly high: number;
}

/**
 * How much the second rate is above the first.
 *
 * Source: Newcombe (1998), "Interval estimation for the difference between independent proportions", method 10: the
 * distances of both Wilson intervals, squared and added.
 */
export function rateDifference(first: ConversionCounts, second: ConversionCounts): Difference {
  const [a, b] = [conversionRate(first), conversionRate(second)];
  if (a.value === null || b.value === null) return { value: null, low: -1, high: 1 };
  const value = b.value - a.value;
  return {
    value,
    low: Math.max(-1, value - Math.hypot(b.value - b.low, a.high - a.value)),
    high: Math.min(1, value + Math.hypot(b.high - b.value, a.value - a.low)),
  };
}

/** Which way a difference goes; `unclear` where its interval holds none at all. */
export const directionOf = ({ value, low, high }: Difference): 'up' | 'down' | 'unclear' =>
  value === null || (low <= 0 && high >= 0) ? 'unclear' : value > 0 ? 'up' : 'down';
