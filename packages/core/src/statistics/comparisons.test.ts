import fc from 'fast-check';
import { describe, expect, it, test } from 'vitest';
import { compareStretches, type DayCount } from './before-after.ts';
import { directionOf, rateDifference } from './difference.ts';
import { divisionEvidence, isDividedWrongly } from './division.ts';
import { chiSquareTail } from './gamma.ts';
import { costOfChoosing, probabilityBetter } from './probability-better.ts';
import { visitorsASide } from './sample-size.ts';

const counts = (converters: number, visitors: number) => ({ converters, visitors });

describe('differences', () => {
  // Newcombe (1998), method 10: 56/70 - 48/80. Six decimals from a computation at 60 digits (the numbers that came with
  // the product's description).
  it('of the paper', () => {
    const { value, low, high } = rateDifference(counts(48, 80), counts(56, 70));
    expect(value).toBeCloseTo(0.2, 12);
    expect(low).toBeCloseTo(0.0524315, 6);
    expect(high).toBeCloseTo(0.3338727, 6);
  });
  test.each([
    [counts(0, 0), counts(1, 2), 'unclear'],
    [counts(50, 1000), counts(52, 1000), 'unclear'],
    [counts(50, 1000), counts(90, 1000), 'up'],
    [counts(90, 1000), counts(50, 1000), 'down'],
    // More converters than visitors heard of: a legal state, and no rate above 1.
    [counts(3, 2), counts(0, 0), 'unclear'],
  ] as const)('%j to %j: %s', (first, second, direction) => {
    expect(directionOf(rateDifference(first, second))).toBe(direction);
  });
  it('of nobody are anything there is', () => {
    const anything = { value: null, low: -1, high: 1 };
    expect(rateDifference(counts(0, 0), counts(1, 2))).toEqual(anything);
    expect(rateDifference(counts(1, 2), counts(0, 0))).toEqual(anything);
  });
  it('whose interval only just holds none are unclear', () => {
    expect(directionOf({ value: 0.1, low: 0, high: 0.2 })).toBe('unclear');
    expect(directionOf({ value: -0.1, low: -0.2, high: 0 })).toBe('unclear');
  });
  it('mirror, hold the difference and stay within 1', () => {
    const some = fc
      .integer({ min: 1, max: 5000 })
      .chain((visitors) =>
        fc.integer({ min: 0, max: visitors }).map((converters) => ({ converters, visitors })),
      );
    fc.assert(
      fc.property(some, some, (a, b) => {
        const [there, back] = [rateDifference(a, b), rateDifference(b, a)];
        expect(there.low).toBeCloseTo(-back.high, 12);
        expect(there.low).toBeGreaterThanOrEqual(-1);
        expect(there.value).toBeGreaterThanOrEqual(there.low - 1e-15);
        expect(there.value).toBeLessThanOrEqual(there.high + 1e-15);
      }),
    );
  });
});

describe('the chance that the second is better', () => {
  // At 60 digits, uniform beliefs before (the numbers that came with the product's description).
  test.each([
    [counts(48, 80), counts(56, 70), 0.995929539],
    [counts(15, 148), counts(81, 263), 0.9999995929],
    [counts(0, 20), counts(1, 29), 0.6588235294],
    [counts(200, 1000), counts(100, 1000), 1.459325e-10],
    [counts(0, 0), counts(0, 0), 0.5],
    // By hand: a rate with the density 2x, and one of which nothing is known.
    [counts(1, 1), counts(0, 0), 1 / 3],
    [counts(0, 0), counts(2, 1), 3 / 4],
  ])('%j, %j: %d', (first, second, chance) => {
    expect(probabilityBetter(first, second) / chance).toBeCloseTo(1, 6);
  });
  it('and its opposite are all there is, also at a million a side', () => {
    const [a, b] = [counts(100_000, 1_000_000), counts(100_400, 1_000_000)];
    expect(probabilityBetter(a, b) + probabilityBetter(b, a)).toBeCloseTo(1, 8);
    // The normal approximation is right to four decimals at these counts.
    expect(probabilityBetter(a, b)).toBeCloseTo(0.8268, 3);
  });
  // Integrals over the unit square, by hand, with the densities 1 and 2x.
  test.each([
    [counts(0, 0), counts(0, 0), 1 / 6],
    [counts(1, 1), counts(0, 0), 1 / 4],
    [counts(0, 0), counts(1, 1), 1 / 12],
  ])('choosing the second costs on average what it may be worse: %j, %j', (first, second, cost) => {
    expect(costOfChoosing(first, second)).toBeCloseTo(cost, 12);
  });
  it('choosing costs nothing where the other is surely worse, and points where it is surely better', () => {
    expect(costOfChoosing(counts(10, 10_000), counts(900, 10_000))).toBeLessThan(1e-12);
    expect(costOfChoosing(counts(900, 10_000), counts(10, 10_000))).toBeCloseTo(0.089, 3);
  });
});

// Fleiss's formula; the same figures stand in the product's description.
test.each([
  [0.05, 0.06, 8158],
  [0.1, 0.12, 3841],
  [0.06, 0.05, 8158],
  [0, 1, 2],
  [1, 0, 2],
])('%d against %d takes %i visitors a side', (rate, wanted, visitors) => {
  expect(visitorsASide({ rate, wanted })).toBe(visitors);
});
test.each([
  [0.1, 0.1],
  [0.1, 1.1],
  [1.1, 0.1],
  [0.1, -0.1],
  [-0.1, 0.1],
  [Number.NaN, 0.1],
])('no number of visitors tells %d from %d', (rate, wanted) => {
  expect(visitorsASide({ rate, wanted })).toBeNull();
});

describe('the division of visitors', () => {
  // Pearson (1900): chi-square of 5 100 against 4 900 with equal shares is 4.0, p 0.0455.
  it('of one look, by chi-square', () => {
    expect((5100 - 5000) ** 2 / 5000 + (4900 - 5000) ** 2 / 5000).toBe(4);
    expect(chiSquareTail(4, 1)).toBeCloseTo(0.0455, 4);
  });
  const arms = (...visitors: number[]) => visitors.map((n) => ({ weight: 50, visitors: n }));
  it('as drawn or nearly so is no alarm; far off it is', () => {
    expect(isDividedWrongly(arms(5100, 4900))).toBe(false);
    expect(isDividedWrongly(arms(5400, 4600))).toBe(true);
    expect(
      isDividedWrongly([
        { weight: 90, visitors: 900 },
        { weight: 10, visitors: 100 },
      ]),
    ).toBe(false);
    expect(
      isDividedWrongly([
        { weight: 0, visitors: 1 },
        { weight: 50, visitors: 10 },
      ]),
    ).toBe(true);
    expect(divisionEvidence(arms(0, 0))).toBe(1);
    expect(divisionEvidence(arms(7))).toBe(1);
  });
  it('is evidence in the odds of a hundred visitors’ belief', () => {
    // By hand: the first two go the same way with 50/100 · 51/101, drawn as they were with 1/2 · 1/2.
    expect(divisionEvidence(arms(2, 0))).toBeCloseTo(((50 * 51) / (100 * 101)) * 4, 12);
    expect(divisionEvidence(arms(1, 1))).toBeCloseTo(((50 * 50) / (100 * 101)) * 4, 12);
    // A variant that is not drawn any more and met nobody says nothing.
    expect(divisionEvidence([{ weight: 0, visitors: 0 }, ...arms(2, 0)])).toBe(divisionEvidence(arms(2, 0)));
    expect(
      divisionEvidence([
        { weight: 1, visitors: 2 },
        { weight: 1, visitors: 0 },
      ]),
    ).toBe(divisionEvidence(arms(2, 0)));
  });
});

describe('before and after', () => {
  const from = Date.UTC(2026, 8, 7);
  const days = (begin: number, values: readonly number[]): DayCount[] =>
    values.map((count, n) => ({
      day: new Date(from + (begin + n) * 86_400_000).toISOString().slice(0, 10),
      count,
    }));
  const week = [20, 22, 21, 19, 25, 40, 44];

  it('matches weekdays: the same uneven week twice is no change at all', () => {
    const found = compareStretches(days(0, [...week, ...week]), days(14, [...week, ...week]));
    expect(found).toMatchObject({ ratio: 1, unevenness: 1, daysBefore: 14, daysAfter: 14 });
    expect(found.chance).toBeCloseTo(1, 9);
    expect(found.low).toBeLessThan(1);
    expect(found.high).toBeGreaterThan(1);
  });
  it('says of a side without days that nothing was there, and no more', () => {
    expect(compareStretches([], days(0, [3, 5]))).toMatchObject({ before: 0, after: 4 });
    expect(compareStretches(days(0, [3, 5]), [])).toMatchObject({ before: 4, after: 0 });
  });
  // Pearson's statistic by hand, and Student's 97.5 % point of two degrees from any handbook's table: 4.302653.
  it.each([
    [[1, 0], [0, 1], 1, 1],
    [[0, 8], [1, 1], 0.25, 4],
    [[5, 0, 0, 0], [0, 0, 5, 0], 1, 5],
  ])('of %j and %j: %d times as many, %d times as uneven', (before, after, ratio, unevenness) => {
    const found = compareStretches(days(0, before), days(before.length, after));
    expect(found.ratio).toBeCloseTo(ratio, 12);
    expect(found.unevenness).toBeCloseTo(unevenness, 12);
    const of = (all: readonly number[]) => all.reduce((sum, one) => sum + one);
    const reach = Math.sqrt(unevenness * (1 / of(before) + 1 / of(after)));
    if (before.length === 2) expect(Math.log(found.high / ratio) / reach).toBeCloseTo(4.302653, 5);
    expect(found.low * found.high).toBeCloseTo(ratio ** 2, 9);
  });
  it('is uneven against what its weekdays lead one to expect', () => {
    const found = compareStretches(
      days(0, [100, 100, 100, 100, 100, 100, 100]),
      days(7, [100, 100, 100, 100, 100, 100, 240]),
    );
    // By hand: 385 to 51.
    expect(found.unevenness).toBeCloseTo(385 / 51, 9);
    expect(found.ratio).toBeCloseTo(1.2, 12);
  });
  it('says of few days how many times as many, and no more', () => {
    const open = { low: 0, high: Number.POSITIVE_INFINITY, chance: null, unevenness: 1 };
    expect(compareStretches(days(0, [4]), days(1, [5]))).toEqual({
      ...open,
      before: 4,
      after: 5,
      ratio: 1.25,
      daysBefore: 1,
      daysAfter: 1,
    });
    expect(compareStretches(days(0, [4]), days(1, [5, 6]))).toMatchObject({ ...open, ratio: 1.375 });
    expect(compareStretches(days(0, [1, 2, 3]), days(3, [0, 0, 0]))).toMatchObject({
      ratio: 0,
      high: open.high,
    });
    expect(compareStretches(days(0, [1, 1, 1]), days(3, [0, 0, 0]))).toMatchObject({
      ratio: 0,
      unevenness: 1,
    });
    expect(compareStretches(days(0, [0, 0]), days(2, [1, 2]))).toMatchObject({ ratio: null, chance: null });
    expect(compareStretches([], [])).toMatchObject({ ratio: null, unevenness: 1, before: 0, after: 0 });
  });
  it('takes whole weeks next to the change', () => {
    const found = compareStretches(days(0, [999, ...week]), days(8, [...week, 0, 0]));
    expect(found).toMatchObject({ daysBefore: 7, daysAfter: 7, ratio: 1 });
  });
  // Worked by hand from the formulas of McCullagh and Nelder (6.2, 9.2); the quantiles of Student's distribution are those of
  // any handbook's table.
  it.each<[string, number[], number[], { degrees: number; quantile: number; unevenness: number }]>([
    ['even days', [10, 14, 12], [20, 26, 23], { degrees: 4, quantile: 2.7764, unevenness: 1 }],
    ['uneven days', [4, 20, 12], [10, 40, 19], { degrees: 4, quantile: 2.7764, unevenness: 7.8188 }],
    [
      'a matched week each',
      week,
      week.map((count) => count * 2),
      { degrees: 6, quantile: 2.4469, unevenness: 1 },
    ],
    ['six days before', week.slice(1), week, { degrees: 11, quantile: 2.201, unevenness: 3.9464 }],
  ])('of %s the interval is the handbook’s', (_of, before, after, { quantile, unevenness }) => {
    const found = compareStretches(days(0, before), days(before.length, after));
    const sum = (counts: number[]) => counts.reduce((all, count) => all + count, 0);
    const ratio = sum(after) / after.length / (sum(before) / before.length);
    const reach = quantile * Math.sqrt(unevenness * (1 / sum(before) + 1 / sum(after)));
    expect(found.unevenness).toBeCloseTo(unevenness, 3);
    expect(found.ratio).toBeCloseTo(ratio, 9);
    expect(found.low).toBeCloseTo(ratio * Math.exp(-reach), 3);
    expect(found.high).toBeCloseTo(ratio * Math.exp(reach), 3);
  });
  it('is wider where days are more uneven than chance', () => {
    const even = compareStretches(days(0, [...week, ...week]), days(14, [...week, ...week]));
    const wild = week.map((count, n) => (n % 2 ? count * 2 : 5));
    const uneven = compareStretches(days(0, [...week, ...wild]), days(14, [...wild, ...week]));
    expect(uneven.unevenness).toBeGreaterThan(3);
    expect(Math.log(uneven.high) - Math.log(uneven.low)).toBeGreaterThan(
      1.5 * (Math.log(even.high) - Math.log(even.low)),
    );
  });
  it.each([
    [[], [1, 2]],
    [
      [0, 0, 0],
      [4, 5, 6],
    ],
    [[4], [5]],
  ])('of %j and %j says that it cannot tell', (before, after) => {
    const found = compareStretches(days(0, before), days(before.length, after));
    expect(found.chance).toBeNull();
    expect(found.high).toBe(Number.POSITIVE_INFINITY);
  });
});
