import { describe, expect, it } from 'vitest';
import { foreseenWords, heldSoFar, howItHeld, keptForecastOf } from './foreseen.ts';

const day = (value: number, low: number, high: number) => ({ value, low, high });
const forecast = { visitors: 5000, byDay: [day(100, 90, 110), day(180, 165, 195), day(240, 222, 259)] };

describe('a forecast held against what came', () => {
  it.each<[what: string, came: number[], how: string, words: string]>([
    [
      'before a day is over',
      [],
      'too early',
      'No day is over yet; 240 visitors are foreseen in 3 days (222 to 259).',
    ],
    [
      'within its interval',
      [100, 165],
      'as foreseen',
      '165 visitors met it in 2 days; 180 were foreseen (165 to 195).',
    ],
    [
      'at its upper end',
      [100, 195],
      'as foreseen',
      '195 visitors met it in 2 days; 180 were foreseen (165 to 195).',
    ],
    [
      'already on the first day',
      [164],
      'more',
      '164 visitors met it in 1 day; 100 were foreseen (90 to 110).',
    ],
    ['with fewer', [100, 164], 'fewer', '164 visitors met it in 2 days; 180 were foreseen (165 to 195).'],
    ['with more', [100, 180, 260], 'more', '260 visitors met it in 3 days; 240 were foreseen (222 to 259).'],
    ['with one of them', [1], 'fewer', '1 visitor met it in 1 day; 100 were foreseen (90 to 110).'],
  ])('%s', (_what, came, how, words) => {
    expect(howItHeld({ forecast, came })).toBe(how);
    expect(foreseenWords({ forecast, came })).toBe(words);
  });

  it('speaks of one as of one', () => {
    const one = { visitors: 9, byDay: [day(1, 0, 3)] };
    expect(foreseenWords({ forecast: one, came: [] })).toBe(
      'No day is over yet; 1 visitor is foreseen in 1 day (0 to 3).',
    );
    expect(foreseenWords({ forecast: one, came: [1] })).toBe(
      '1 visitor met it in 1 day; 1 was foreseen (0 to 3).',
    );
  });

  it('counts those that came out as foreseen among those of which a day is over', () => {
    const of = (...came: number[]) => ({ forecast, came });
    expect(heldSoFar([of(), of(100), of(100, 10), of(90, 180)])).toEqual({ held: 2, of: 3 });
    expect(heldSoFar([])).toEqual({ held: 0, of: 0 });
  });

  it('is kept by day and nothing else of it', () => {
    const kept = keptForecastOf(
      { byDay: forecast.byDay } as unknown as Parameters<typeof keptForecastOf>[0],
      5000,
    );
    expect(kept).toEqual(forecast);
  });
});
