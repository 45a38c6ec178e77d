import { describe, expect, it, test } from 'vitest';
import { daysToGo, type ExperimentDay, experimentVerdict } from './experiment.ts';
import { mixtureBoundary } from './mixture.ts';
import { spendingBoundaries } from './spending.ts';

// O'Brien-Fleming type spending at five equal looks, two-sided 5 %: published tables (Jennison and Turnbull 2000,
// "Group sequential methods", from memory; the same figures stand in the product's description).
it('boundaries of five equal looks', () => {
  const bounds = spendingBoundaries([0.2, 0.4, 0.6, 0.8, 1], 0.05);
  [4.8769, 3.357, 2.6803, 2.2898, 2.031].forEach((bound, n) => {
    expect(bounds[n]).toBeCloseTo(bound, 3);
  });
});
it('one look at the end is the fixed test', () => {
  expect(spendingBoundaries([1], 0.05)[0]).toBeCloseTo(1.959964, 5);
});
it('sixty looks ask for little more at the end than five', () => {
  const bounds = spendingBoundaries(
    Array.from({ length: 60 }, (_, n) => (n + 1) / 60),
    0.05,
  );
  expect(bounds.at(-1)).toBeGreaterThan(2.03);
  expect(bounds.at(-1)).toBeLessThan(2.2);
  // A boundary that rises would have spent what it may not.
  for (let n = 3; n < bounds.length; n++)
    expect(bounds[n]).toBeLessThanOrEqual((bounds[n - 1] as number) + 1e-6);
});

it('a mixture asks for more than a fixed test at any time, and for endlessly much of nothing', () => {
  for (const information of [1, 100, 8000, 1e6])
    expect(mixtureBoundary(information, 8000, 0.05)).toBeGreaterThan(1.96);
  expect(mixtureBoundary(0, 8000, 0.05)).toBe(Number.POSITIVE_INFINITY);
  expect(mixtureBoundary(Number.NaN, 8000, 0.05)).toBe(Number.POSITIVE_INFINITY);
  // By hand, from the formula.
  expect(mixtureBoundary(8000, 8000, 0.05)).toBeCloseTo(3.0351, 3);
  expect(mixtureBoundary(0.5, 8000, 0.05)).toBeCloseTo(
    Math.sqrt((1 + 8000 / 4.1) * Math.log(400 * (1 + 4.1 / 8000))),
    9,
  );
});
it('a mixture is narrowest where it is tuned to be', () => {
  for (const off of [1.05, 1 / 1.05])
    expect(mixtureBoundary(8000, 8000, 0.05)).toBeLessThan(mixtureBoundary(8000, 8000 * off, 0.05));
});
it('boundaries that were found are not found again', () => {
  expect(spendingBoundaries([0.3, 1], 0.05)).toBe(spendingBoundaries([0.3, 1], 0.05));
});

const WEEKS = 8;
/** An experiment whose arms grow evenly, with these rates. */
const growing = (perDay: number, rates: readonly number[], days = WEEKS * 7): ExperimentDay[] =>
  Array.from({ length: days }, (_, n) => ({
    day: `day ${n + 1}`,
    arms: rates.map((rate, at) => ({
      id: 'abcde'[at] as string,
      weight: 50,
      visitors: perDay * (n + 1),
      converters: Math.round(perDay * (n + 1) * rate),
    })),
  }));
const plan = { visitorsASide: 8000, smallest: 0.01 };

describe('what an experiment says', () => {
  it('nothing before anybody came', () => {
    expect(experimentVerdict([], plan)).toMatchObject({ code: 'nothing', seen: 0, stories: [] });
    expect(experimentVerdict(growing(0, [0.05, 0.06], 2), plan).code).toBe('nothing');
  });
  it('not yet while it may still go either way', () => {
    const found = experimentVerdict(growing(150, [0.05, 0.055], 10), plan);
    expect(found).toMatchObject({ code: 'notYet', arm: 'b', look: { day: 'day 10' } });
    expect(found.seen).toBeCloseTo(1500 / 8000, 9);
  });
  it('that a variant is better, from the day it was sure, with an interval above nought', () => {
    const found = experimentVerdict(growing(150, [0.05, 0.08]), plan);
    expect(found).toMatchObject({ code: 'better', arm: 'b' });
    expect(found.look?.low).toBeGreaterThan(0);
    // What was decided stays, whatever comes after.
    const later = [...growing(150, [0.05, 0.08]), ...growing(150, [0.05, 0.05], 57).slice(56)];
    expect(experimentVerdict(later, plan).look?.day).toBe(found.look?.day);
  });
  // The test pools the two rates, the interval does not: common practice, worked by hand for 400 and 450 of 1000 each.
  it('its looks are tested with the rates pooled and told with them apart', () => {
    const [look] = experimentVerdict(growing(1000, [0.4, 0.45], 1), plan).stories[0]?.looks ?? [];
    expect(look?.difference).toBeCloseTo(0.05, 12);
    expect(look?.z).toBeCloseTo(0.05 / Math.sqrt((0.425 * 0.575 * 2) / 1000), 9);
    const half = (look?.boundary ?? 0) * Math.sqrt((0.4 * 0.6 + 0.45 * 0.55) / 1000);
    expect(look?.high).toBeCloseTo(0.05 + half, 9);
    expect(look?.low).toBeCloseTo(0.05 - half, 9);
  });
  it('that the present one is better', () => {
    expect(experimentVerdict(growing(150, [0.08, 0.05]), plan).code).toBe('present');
  });
  it('the best of several, each against the present one, at a stricter measure', () => {
    const found = experimentVerdict(growing(150, [0.05, 0.07, 0.09]), plan);
    expect(found).toMatchObject({ code: 'better', arm: 'c' });
    const [two, three] = [
      [0.05, 0.07],
      [0.05, 0.07, 0.05],
    ].map((rates) => experimentVerdict(growing(150, rates), plan).stories[0]?.looks.at(-1)?.boundary ?? 0);
    expect(three).toBeGreaterThan(two as number);
  });
  it('no difference worth having, or nothing sure, at the end of the plan', () => {
    expect(experimentVerdict(growing(150, [0.05, 0.05]), { ...plan, smallest: 0.02 }).code).toBe(
      'noDifference',
    );
    expect(experimentVerdict(growing(150, [0.05, 0.055]), { ...plan, smallest: 0.001 }).code).toBe(
      'undecided',
    );
  });
  it('names no winner where visitors are not divided as drawn', () => {
    const days = growing(150, [0.05, 0.09]).map(({ day, arms }) => ({
      day,
      arms: arms.map((arm, n) => (n ? { ...arm, visitors: Math.round(arm.visitors * 0.8) } : arm)),
    }));
    expect(experimentVerdict(days, plan).code).toBe('division');
  });
  it('without an end too, and then it never counts a share', () => {
    const open = { visitorsASide: null, smallest: 0.01 };
    expect(experimentVerdict(growing(150, [0.05, 0.08]), open)).toMatchObject({ code: 'better', seen: null });
    expect(experimentVerdict(growing(150, [0.05, 0.055]), open).code).toBe('notYet');
  });
  it('without an end it is tested by a mixture, narrowest where the smallest difference would be noticed', () => {
    const open = { visitorsASide: null, smallest: 0.02 };
    const [look] = experimentVerdict(growing(1000, [0.4, 0.45], 1), open).stories[0]?.looks ?? [];
    const apart = (0.4 * 0.6 + 0.45 * 0.55) / 1000;
    expect(look?.boundary).toBeCloseTo(mixtureBoundary(1 / apart, 8 / 0.02 ** 2, 0.05), 12);
  });
  it('of a few visitors that any difference may be, and of a rate that is the same for all nothing', () => {
    const open = { visitorsASide: null, smallest: 0.1 };
    const looksOf = (rates: number[], perDay: number) =>
      experimentVerdict(growing(perDay, rates, 1), open).stories[0]?.looks ?? [];
    expect(looksOf([0, 1], 1)).toMatchObject([{ difference: 1 }]);
    expect(looksOf([0.5, 0.5], 2)).toMatchObject([{ difference: 0, low: -1, high: 1 }]);
    expect(looksOf([0, 0], 150)).toEqual([]);
    expect(looksOf([1, 1], 150)).toEqual([]);
    const unmet = growing(10, [0.5, 0.5], 1).map(({ day, arms: [present, other] }) => ({
      day,
      arms: [present, { ...other, visitors: 0, converters: 0 }] as ExperimentDay['arms'],
    }));
    expect(experimentVerdict(unmet, open).stories[0]?.looks).toEqual([]);
  });
  it('of days before a variant was there nothing, and of one that is alone not yet', () => {
    const [early, ...later] = growing(400, [0.3, 0.4], 3);
    const joined = [{ day: 'day 1', arms: early?.arms.slice(0, 1) ?? [] }, ...later];
    expect(experimentVerdict(joined, plan).stories[0]?.looks.map(({ day }) => day)).toEqual([
      'day 2',
      'day 3',
    ]);
    const alone = growing(400, [0.3], 3);
    expect(experimentVerdict(alone, plan)).toMatchObject({
      code: 'notYet',
      arm: null,
      look: null,
      stories: [],
    });
  });
  it('looks when enough has come, once more at the end of the plan, and no more after', () => {
    const seen = [500, 501, 502, 998, 999, 1000, 1100].map((visitors) => ({
      day: `${visitors}`,
      arms: ['a', 'b'].map((id) => ({ id, weight: 50, visitors, converters: Math.round(visitors * 0.3) })),
    }));
    const found = experimentVerdict(seen, { visitorsASide: 1000, smallest: 0.01 });
    // What is left after 998 is a look of its own; what is left after 999 would not be.
    expect(found.stories[0]?.looks.map(({ day }) => day)).toEqual(['500', '502', '998', '1000']);
    expect(found.seen).toBe(1);
    const late = experimentVerdict(
      seen.filter(({ day }) => day !== '998'),
      { visitorsASide: 1000, smallest: 0.01 },
    );
    expect(late.stories[0]?.looks.map(({ day }) => day)).toEqual(['500', '502', '1000']);
  });
  it('nothing of a variant that nobody has met yet', () => {
    const alone = growing(1, [0.05, 0.5], 3).map(({ day, arms }) => ({
      day,
      arms: arms.map((arm, n) => (n === 0 ? arm : { ...arm, visitors: 0, converters: 0 })),
    }));
    expect(experimentVerdict(alone, plan).code).toBe('notYet');
    expect(experimentVerdict(alone, plan).stories.flatMap(({ looks }) => looks)).toEqual([]);
  });
});

test.each([
  [growing(100, [0.05, 0.05], 10), 2000, 10],
  [growing(100, [0.05, 0.05], 30), 2000, 0],
  [[], 2000, null],
  // One in two days.
  [growing(0.5, [0.05, 0.05], 2), 10, 18],
  [growing(0, [0.05, 0.05], 3), 2000, null],
  [growing(100, [0.05, 0.05], 10), null, null],
])('days to go', (days, visitors, left) => {
  expect(daysToGo(days as ExperimentDay[], visitors)).toBe(left);
});
