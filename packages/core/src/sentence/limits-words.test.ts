import type { Schedule } from '@velarium/contract';
import { expect, it } from 'vitest';
import { experimentWords, scheduleWords } from './limits-words.ts';

const ALWAYS: Schedule = { zone: 'site', start: null, end: null, days: [], hours: [], blackouts: [] };
const said = (change: Partial<Schedule>) => scheduleWords({ ...ALWAYS, ...change });

it('one day of the week and one stretch of hours are said as well as several', () => {
  expect(said({ days: [3] })).toContain('on Wednesdays');
  expect(said({ days: [6, 7] })).toContain('on Saturdays and Sundays');
  expect(said({ hours: [{ from: '09:00', to: '17:00' }] })).toContain('between 09:00 and 17:00');
  expect(said({})).not.toMatch(/\bon\b|between/);
});
it.each([
  [[1, 2, 3, 4, 5], 'on weekdays,'],
  [[1, 2, 3, 4, 5, 6], 'on Mondays to Saturdays,'],
  [[5, 6, 7], 'on Fridays to Sundays,'],
  [[1, 2, 4, 5, 6, 7], 'on every day but Wednesdays,'],
  [[2, 3, 4, 5, 6, 7], 'on Tuesdays to Sundays,'],
  [[1, 2, 4], 'on Mondays, Tuesdays and Thursdays,'],
  [[1, 2], 'on Mondays and Tuesdays,'],
])('a stretch of days, %j, is said as one', (days, words) => expect(said({ days })).toContain(words));
it('hours past midnight say so, and of days left out none is one of the days', () => {
  const hours = [
    { from: '22:00', to: '02:00' },
    { from: '09:00', to: '24:00' },
  ];
  expect(said({ hours })).toContain('between 22:00 and 02:00 the next day or 09:00 and 24:00,');
  const blackouts = [
    { from: '2026-12-24', to: '2026-12-26' },
    { from: '2027-01-01', to: '2027-01-01' },
  ];
  expect(said({ blackouts })).toContain(
    'but not from 24 December 2026 to 26 December 2026 or on 1 January 2027,',
  );
});
it.each([
  [0, [], ''],
  [1, [], 'held back from 1 % of visitors'],
  [0, [{ id: 'b', weight: 30 }], 'tried in 2 variants (a 70 %, b 30 %)'],
  [10, [{ id: 'b', weight: 50 }], 'held back from 10 % of visitors and tried in 2 variants (a 50 %, b 50 %)'],
])('held back from %i, with %j', (holdout, variants, words) =>
  expect(experimentWords(holdout, variants)).toBe(words),
);
