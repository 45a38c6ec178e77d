import normalQuantile from '@stdlib/stats-base-dists-normal-quantile';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wilson, Z_95 } from './wilson.ts';

it('uses the 97.5 % point of the standard normal', () => {
  // Reference library: @stdlib/stats-base-dists-normal-quantile.
  expect(Z_95).toBeCloseTo(normalQuantile(0.975, 0, 1), 12);
});

describe('Newcombe (1998), "Two-sided confidence intervals for the single proportion", method 3', () => {
  // The paper's table, to its four decimals (given in the product description).
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('%i of %i', (successes, trials, low, high) => {
    const rate = wilson(successes, trials);
    expect(rate.low).toBeCloseTo(low, 4);
    expect(rate.high).toBeCloseTo(high, 4);
  });
});

it('stays within 0 and 1, holds the rate, and mirrors', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1_000_000 }), fc.nat(), (trials, n) => {
      const successes = n % (trials + 1);
      const { value, low, high } = wilson(successes, trials);
      expect(low).toBeGreaterThanOrEqual(0);
      expect(high).toBeLessThanOrEqual(1);
      expect(value).toBeGreaterThanOrEqual(low);
      expect(value).toBeLessThanOrEqual(high);
      expect(wilson(trials - successes, trials).low).toBeCloseTo(1 - high, 12);
    }),
  );
});

it('has no rate without trials', () => {
  expect(wilson(0, 0)).toEqual({ value: null, low: 0, high: 1 });
});

it.each([
  [2, 1],
  [-1, 4],
  [0.5, 4],
])('refuses %s of %s', (successes, trials) => {
  expect(() => wilson(successes, trials)).toThrow(RangeError);
});
