import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  countedIn,
  longestStay,
  STAY_DEPTHS,
  STAY_SECONDS,
  shareAt,
  survivalCurve,
  usualStay,
} from './stay.ts';

// What is stored is stored by these: another bound would mean another thing by the numbers there are.
it('keeps its bounds', () => {
  expect(STAY_SECONDS).toEqual([
    0, 1, 2, 3, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 90, 120, 180, 240, 300, 420, 600, 900, 1800,
    3600,
  ]);
  expect(STAY_DEPTHS).toEqual(Array.from({ length: 21 }, (_, n) => n * 5));
});

describe('the survival curve', () => {
  /** Kaplan and Meier (1958) without censoring is the plain share of those not yet gone; worked by hand. */
  it('is the share of visits not yet gone', () => {
    expect(survivalCurve([2, 1, 0, 1], [0, 1, 2, 5])).toEqual([
      { at: 0, share: 1 },
      { at: 1, share: 0.5 },
      { at: 2, share: 0.25 },
      { at: 5, share: 0.25 },
    ]);
  });
  it('is drawn from all of them', () => {
    expect(countedIn([2, 1, 0, 1])).toBe(4);
    expect(countedIn([])).toBe(0);
  });
  it('is not there without visits', () => {
    expect(survivalCurve([0, 0], [0, 1])).toEqual([]);
    expect(shareAt([], 3)).toBeUndefined();
  });
  it('begins with everybody, never rises, and is read between its points in between their shares', () => {
    const histogram = fc
      .array(fc.nat(1000), { minLength: STAY_SECONDS.length, maxLength: STAY_SECONDS.length })
      .filter((counts) => counts.some((count) => count > 0));
    fc.assert(
      fc.property(histogram, fc.double({ min: 0, max: 4000, noNaN: true }), (counts, at) => {
        const curve = survivalCurve(counts, STAY_SECONDS);
        expect(curve[0]?.share).toBe(1);
        curve.forEach((point, n) => {
          expect(point.share).toBeLessThanOrEqual(curve[n - 1]?.share ?? 1);
        });
        const [before, after] = [
          [...curve].reverse().find((point) => point.at <= at),
          curve.find((point) => point.at >= at) ?? curve.at(-1),
        ];
        expect(shareAt(curve, at)).toBeLessThanOrEqual(before?.share ?? 1);
        expect(shareAt(curve, at)).toBeGreaterThanOrEqual(after?.share ?? 0);
      }),
    );
  });
});

it('between two points the share lies on the line from one to the other', () => {
  const curve = [
    { at: 0, share: 1 },
    { at: 10, share: 0.5 },
    { at: 20, share: 0.25 },
  ];
  expect([0, 5, 10, 14, 20, 25].map((at) => shareAt(curve, at))).toEqual([1, 0.75, 0.5, 0.4, 0.25, 0.25]);
});

// A page view of a bucket has ended by the beginning of the next; of the last nobody knows.
it.each([
  [[0, 2, 0, 0], 2],
  [[5, 0, 0, 0], 1],
  [[1, 1, 1, 0], 3],
  [[0, 0, 0, 1], null],
  [[0, 0, 0, 0], null],
])('of %j the last had ended by %s', (histogram, expected) => {
  expect(longestStay(histogram, [0, 1, 2, 3])).toBe(expected);
});

it.each([
  [[0, 2, 1, 1], 2],
  [[4, 0, 0, 0], 0],
  [[1, 1, 0, 0], 1],
  [[0, 0, 0, 3], 3],
  [[0, 0, 0, 0], undefined],
])('half of %j come at least this far: %s', (histogram, expected) => {
  expect(usualStay(histogram, [0, 1, 2, 3])).toBe(expected);
});
