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
  [0, [], ''],
  [1, [], 'held back from 1 % of visitors'],
  [0, [{ id: 'b', weight: 30 }], 'tried in 2 variants (a 70 %, b 30 %)'],
  [10, [{ id: 'b', weight: 50 }], 'held back from 10 % of visitors and tried in 2 variants (a 50 %, b 50 %)'],
])('held back from %i, with %j', (holdout, variants, words) =>
  expect(experimentWords(holdout, variants)).toBe(words),
);
