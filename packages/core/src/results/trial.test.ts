import type { Experiment } from '@velarium/contract';
import { describe, expect, it, test } from 'vitest';
import { visitorsASide } from '../statistics/sample-size.ts';
import { startingDocument, TEMPLATES, type Template } from '../templates/templates.ts';
import {
  aimWords,
  DEFAULT_TRIAL,
  evenShares,
  experimentSentence,
  nextVariant,
  notInTrialWords,
  trialForecast,
  trialForecastWords,
  variantOf,
} from './trial.ts';

describe('what a trial takes', () => {
  const trial = { smallest: 1, isPlanned: true };
  test.each([
    [
      { visitors: 0, converters: 0, days: 0 },
      trial,
      2,
      /8,158 visitors a variant, if about 5\.0 % convert\. Nobody has met/,
    ],
    [
      { visitors: 2800, converters: 140, days: 28 },
      trial,
      2,
      /8,158 visitors a variant: with 100 a day, about 164 days\.$/,
    ],
    [
      { visitors: 2, converters: 0, days: 2 },
      { smallest: 0.1, isPlanned: true },
      2,
      /with 1 a day it would never end/,
    ],
    // More variants share the error, so each takes more.
    [{ visitors: 2800, converters: 140, days: 28 }, trial, 3, /It takes 9,\d{3} visitors a variant/],
    // All convert: there is no room above, so it looks below.
    [{ visitors: 10, converters: 10, days: 1 }, trial, 2, /It takes [\d,]+ visitors a variant/],
  ])('%j with %j and %i: %s', (lately, asked, arms, words) => {
    expect(trialForecastWords(trialForecast(lately, asked, arms))).toMatch(words);
  });
});

it('without anybody’s word two points are looked for, to a plan', () => {
  expect(DEFAULT_TRIAL).toEqual({ smallest: 2, isPlanned: true });
});
describe('what a trial takes, reckoned', () => {
  const asked = { smallest: 1, isPlanned: true };
  it('looks for a higher rate as long as there is room for one', () => {
    const of = (converters: number) =>
      trialForecast({ visitors: 100, converters, days: 1 }, { ...asked, smallest: 2 }, 2).visitorsASide;
    expect(of(98)).toBe(visitorsASide({ rate: 0.98, wanted: 1 }));
    expect(of(99)).toBe(visitorsASide({ rate: 0.99, wanted: 0.97 }));
    // More converters than visitors heard of are all of them.
    expect(trialForecast({ visitors: 2, converters: 3, days: 1 }, asked, 2).rate).toBe(1);
  });
  it('shares the error between the variants, and adds up their visitors', () => {
    const lately = { visitors: 2800, converters: 140, days: 28 };
    for (const arms of [1, 2, 3]) {
      const aSide = visitorsASide({ rate: 0.05, wanted: 0.06, alpha: 0.05 / Math.max(1, arms - 1) }) ?? 0;
      expect(trialForecast(lately, asked, arms)).toEqual({
        rate: 0.05,
        visitorsADay: 100,
        visitorsASide: aSide,
        days: Math.ceil((aSide * arms) / 100),
      });
    }
  });
  it('never ends after ten years, and without visitors or days nobody knows', () => {
    const aSide = visitorsASide({ rate: 0.05, wanted: 0.06 }) ?? 0;
    const taking = (days: number) =>
      trialForecast({ visitors: aSide * 2, converters: aSide * 0.1, days: days - 0.5 }, asked, 2).days;
    expect([taking(3650), taking(3651)]).toEqual([3650, null]);
    expect(trialForecast({ visitors: 5, converters: 1, days: 0 }, asked, 2)).toMatchObject({
      visitorsADay: 0,
      days: null,
    });
    const none = trialForecast({ visitors: 100, converters: 5, days: 1 }, { ...asked, smallest: 0 }, 2);
    expect(none).toMatchObject({ visitorsASide: null, days: null });
    expect(trialForecastWords(none)).toMatch(/^No number of visitors/);
  });
});
it('says what counts, where that is a goal', () => {
  expect(aimWords({ goal: null })).toBe('');
  expect(aimWords({ goal: { id: 'g', name: 'Booked', days: 7 } as never })).toBe(
    'Who reaches “Booked” within 7 days of the showing counts.',
  );
});

const DAYS = 40;
const experiment = (rates: readonly number[], more: Partial<Experiment> = {}, perDay = 150): Experiment => ({
  id: '00000000-0000-4000-8000-000000000000',
  startedAt: '2026-10-01T08:00:00.000Z',
  endedAt: null,
  ended: null,
  adopted: null,
  visitorsASide: 6000,
  smallest: 0.02,
  goal: null,
  windowHours: 24,
  entered: perDay * DAYS * rates.length,
  undivided: 0,
  robots: 0,
  days: Array.from({ length: DAYS }, (_, n) => ({
    day: new Date(Date.UTC(2026, 9, 2 + n)).toISOString().slice(0, 10),
    arms: rates.map((rate, at) => ({
      id: 'abc'[at] as string,
      weight: 50,
      visitors: perDay * (n + 1),
      converters: Math.round(perDay * (n + 1) * rate),
    })),
  })),
  ...more,
});

it('who was left out is said where anybody was', () => {
  expect(notInTrialWords({ undivided: 0, robots: 0 })).toBe('');
  expect(notInTrialWords({ undivided: 1, robots: 0 })).toBe(
    'Left out: 1 visitor whose browser remembers nothing, or whose page was older than the experiment (they had the present one).',
  );
  expect(notInTrialWords({ undivided: 0, robots: 1 })).toBe('Left out: 1 showing to robots.');
  expect(notInTrialWords({ undivided: 2, robots: 12 })).toMatch(
    /^Left out: 2 visitors .*; 12 showings to robots\.$/,
  );
});

describe('what an experiment says', () => {
  test.each<[string, Experiment, RegExp]>([
    ['nobody', experiment([0, 0], { days: [], entered: 0 }), /^Nobody has entered it yet\.$/],
    [
      'nobody counts',
      experiment([0, 0], { days: [], entered: 3 }),
      /^3 visitors entered it; none counts yet/,
    ],
    [
      'better',
      experiment([0.05, 0.09]),
      /^Variant B is better, by \d+\.\d to \d+\.\d points on the day it was sure \(\d+\.\d to \d+\.\d by now\)\. It can be stopped here\.$/,
    ],
    ['present', experiment([0.09, 0.05]), /^The present one is better than variant B, by/],
    [
      'no difference',
      experiment([0.05, 0.05]),
      /no difference worth having: whatever there is, is less than 2\.0 points/,
    ],
    ['undecided', experiment([0.05, 0.055], { smallest: 0.001 }), /seen to the end and nothing is sure/],
    [
      'not yet',
      experiment([0.05, 0.055], { visitorsASide: 12_000, smallest: 0.001 }),
      /^Not yet\. So far variant B lies between −\d+\.\d and \+\d+\.\d points of the present one\. About 40 days to go/,
    ],
    [
      'without an end',
      experiment([0.05, 0.055], { visitorsASide: null, smallest: 0.001 }),
      /^Not yet\..* It runs without an end\.$/,
    ],
  ])('%s', (_what, found, words) => {
    expect(experimentSentence(found)).toMatch(words);
  });
  it('better says its interval of now only where that is of another day', () => {
    const found = experiment([0.05, 0.09]);
    const until = (days: number) => experimentSentence({ ...found, days: found.days.slice(0, days) });
    const sure =
      Array.from({ length: DAYS }, (_, n) => n + 1).find((days) => until(days).includes('is better')) ?? 0;
    expect(until(sure)).toMatch(/points on the day it was sure\. It can be stopped here\.$/);
    expect(until(sure + 1)).toMatch(/sure \([\d.]+ to [\d.]+ by now\)\./);
    expect(experimentSentence({ ...found, endedAt: '2026-11-11T00:00:00.000Z' })).not.toContain(
      'stopped here',
    );
  });
  it('of several of which the present one beats each, names none', () => {
    expect(experimentSentence(experiment([0.12, 0.05, 0.05]))).toMatch(
      /^The present one is better than every other\./,
    );
  });
  it('of a wrong division names no winner', () => {
    const found = experiment([0.05, 0.09]);
    const days = found.days.map(({ day, arms: [a, b] }) => ({
      day,
      arms: [a, { ...b, visitors: (b?.visitors ?? 0) * 0.7 }],
    }));
    expect(experimentSentence({ ...found, days } as Experiment)).toMatch(
      /^Visitors are not divided as they were drawn/,
    );
  });
});

describe('variants', () => {
  const document = startingDocument(TEMPLATES[0] as Template);
  const later = {
    ...document,
    rule: {
      ...document.rule,
      moment: { ...document.rule.moment, triggers: [{ kind: 'time' as const, seconds: 99 }] },
    },
  };
  it('take the letter nobody has, and share evenly with the present one', () => {
    const b = variantOf('b', document, document.rule.moment);
    expect(b).not.toHaveProperty('moment');
    expect(b.weight).toBe(0);
    expect(evenShares([b, b, b]).map(({ weight }) => weight)).toEqual([25, 25, 25]);
    const c = variantOf(nextVariant([b]), later, document.rule.moment);
    expect(c).toMatchObject({ id: 'c', moment: later.rule.moment });
    expect(evenShares([b, c]).map(({ weight }) => weight)).toEqual([33, 33]);
    expect(evenShares([])).toEqual([]);
  });
});
