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
    expect(experimentVerdict([], plan).code).toBe('nothing');
    expect(experimentVerdict(growing(0, [0.05, 0.06], 2), plan).code).toBe('nothing');
  });
  it('not yet while it may still go either way', () => {
    const found = experimentVerdict(growing(150, [0.05, 0.055], 10), plan);
    expect(found).toMatchObject({ code: 'notYet', arm: 'b' });
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
