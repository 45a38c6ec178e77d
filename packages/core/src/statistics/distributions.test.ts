import betaCdf from '@stdlib/stats-base-dists-beta-cdf';
import chisquareCdf from '@stdlib/stats-base-dists-chisquare-cdf';
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import normalReference from '@stdlib/stats-base-dists-normal-quantile';
import tCdf from '@stdlib/stats-base-dists-t-cdf';
import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { betaShare, chiSquareTail, logGamma, studentPoint, studentTails } from './gamma.ts';
import { normalQuantile, normalTail } from './normal.ts';

// Reference library for all of these: @stdlib/stats.
const near = (value: number, reference: number, relative = 1e-10) =>
  expect(Math.abs(value - reference)).toBeLessThanOrEqual(relative * Math.abs(reference) + 1e-300);

it('the tail of the normal, far out too', () => {
  for (let z = -6; z <= 12; z += 0.173) near(normalTail(z), normalCdf(-z, 0, 1), 1e-11);
  expect(normalTail(0)).toBe(0.5);
  expect(normalTail(-40)).toBe(1);
});

it('the quantiles of the normal', () => {
  // Of 1e-12 the library is off in its sixth digit; the value is from tables (from memory).
  expect(normalQuantile(1e-12)).toBeCloseTo(-7.034483825, 8);
  for (const share of [1e-6, 0.001, 0.0125, 0.025, 0.2, 0.5, 0.8, 0.975, 0.999999])
    expect(normalQuantile(share)).toBeCloseTo(normalReference(share, 0, 1), 9);
});
test.each([0, 1, -0.1, Number.NaN])('no quantile at %s', (share) => {
  expect(() => normalQuantile(share)).toThrow(RangeError);
});

it('the gamma function of whole numbers is the factorial of the one before', () => {
  let logFactorial = 0;
  for (let n = 1; n < 200; n++) {
    expect(Math.abs(logGamma(n) - logFactorial)).toBeLessThan(3e-14 * Math.max(1, logFactorial));
    logFactorial += Math.log(n);
  }
});

it('the incomplete beta function', () => {
  const side = fc.double({ min: 0.5, max: 5000, noNaN: true });
  fc.assert(
    fc.property(fc.double({ min: 0.001, max: 0.999, noNaN: true }), side, side, (x, a, b) => {
      expect(Math.abs(betaShare(x, a, b) - betaCdf(x, a, b))).toBeLessThan(1e-9);
    }),
  );
  expect([-1, 0, 1, 1.5, 2].map((x) => betaShare(x, 2, 3))).toEqual([0, 0, 1, 1, 1]);
});

it('the tails of chi-square', () => {
  for (const degrees of [1, 2, 5, 30])
    for (const x of [0.01, 0.7, 3, 9, 40, 90])
      expect(Math.abs(chiSquareTail(x, degrees) - (1 - chisquareCdf(x, degrees)))).toBeLessThan(1e-12);
  expect(chiSquareTail(0, 1)).toBe(1);
  expect(chiSquareTail(-1, 1)).toBe(1);
});

describe('Student’s t', () => {
  it('both tails', () => {
    for (const degrees of [1, 4, 13, 200])
      for (const t of [0, 0.4, 1.9, -3, 8])
        near(studentTails(t, degrees), 2 * tCdf(-Math.abs(t), degrees), 1e-9);
  });
  it('its points', () => {
    for (const degrees of [1, 2, 6, 26, 500])
      expect(studentPoint(0.05, degrees)).toBeCloseTo(tQuantile(0.975, degrees), 8);
  });
});
