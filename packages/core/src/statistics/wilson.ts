/** The 97.5 % point of the standard normal: two-sided 95 %. */
export const Z_95 = 1.959963984540054;

export interface Rate {
  /** Successes over trials, 0 to 1; `null` without trials. */
  readonly value: number | null;
  readonly low: number;
  readonly high: number;
}

/**
 * A proportion with its 95 % score interval.
 *
 * @throws {RangeError} If the counts are not whole, negative, or successes exceed trials.
 * Source: Wilson (1927), "Probable inference, the law of succession, and statistical inference".
 */
export function wilson(successes: number, trials: number): Rate {
  if (
    !Number.isSafeInteger(successes) ||
    !Number.isSafeInteger(trials) ||
    successes < 0 ||
    successes > trials
  ) {
    throw new RangeError(
      `wilson: expected whole counts with 0 <= successes <= trials, got ${successes} of ${trials}`,
    );
  }
  if (trials === 0) return { value: null, low: 0, high: 1 };
  const p = successes / trials;
  const z2 = Z_95 * Z_95;
  const centre = (p + z2 / (2 * trials)) / (1 + z2 / trials);
  const half = (Z_95 / (1 + z2 / trials)) * Math.sqrt((p * (1 - p)) / trials + z2 / (4 * trials * trials));
  // At no success and at nothing but success the exact bound is 0 or 1; rounding would step outside.
  return {
    value: p,
    low: successes === 0 ? 0 : Math.max(0, centre - half),
    high: successes === trials ? 1 : Math.min(1, centre + half),
  };
}
