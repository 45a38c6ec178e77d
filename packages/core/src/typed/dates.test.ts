import rrule from 'rrule';
import { describe, expect, it } from 'vitest';
import { dateMeant, dayAfter, daysMeant, lastOf, stretchMeant, timeMeant } from './dates.ts';

const { RRule } = rrule;
const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'];

describe('a day as people write it', () => {
  it('a weekday is the coming one, seen from every day of the week; on that very day, in a week', () => {
    // 2026-11-23 was a Monday.
    for (let today = '2026-11-23', seen = 0; seen < 7; today = dayAfter(today), seen++) {
      for (const [number, name] of WEEKDAYS.entries()) {
        const meant = dateMeant(name, today) ?? '';
        const ahead = (Date.parse(meant) - Date.parse(today)) / 86_400_000;
        expect([today, name, new Date(meant).getUTCDay()]).toEqual([today, name, number]);
        expect(ahead).toBeGreaterThanOrEqual(1);
        expect(ahead).toBeLessThanOrEqual(7);
        expect(dateMeant(`next ${name}`, today)).toBe(meant);
      }
    }
  });
  it.each([
    ['today', '2026-11-29', '2026-11-29'],
    ['tomorrow', '2026-12-31', '2027-01-01'],
    ['24 December', '2026-11-29', '2026-12-24'],
    ['29 November', '2026-11-29', '2026-11-29'],
    ['28 November', '2026-11-29', '2027-11-28'],
    ['Dec 24th, 2027', '2026-11-29', '2027-12-24'],
    ['24.12.', '2026-11-29', '2026-12-24'],
    ['1.3.2027', '2026-11-29', '2027-03-01'],
    ['2027-02-28', '2026-11-29', '2027-02-28'],
    // The next there is: leap days come every fourth year.
    ['29 February', '2026-11-29', '2028-02-29'],
    ['the end of the month', '2026-11-29', '2026-11-30'],
    ['the end of the month', '2028-02-01', '2028-02-29'],
    ['the end of the year', '2026-11-29', '2026-12-31'],
    ['the end of February', '2026-11-29', '2027-02-28'],
    // A month that is not over ends this year, also on its last days.
    ['the end of November', '2026-11-29', '2026-11-30'],
    ['the end of November', '2026-11-30', '2026-11-30'],
    ['the end of November', '2026-12-01', '2027-11-30'],
    ['the end of February', '2028-02-29', '2028-02-29'],
  ])('%s, on %s, is %s', (said, today, meant) => {
    expect(dateMeant(said, today)).toBe(meant);
  });
  it.each(['2026-13-01', '2026-02-30', '31.11.2026', '29 February 2027', 'the end of smarch'])(
    '%s is none',
    (said) => {
      expect(dateMeant(said, '2026-11-29')).toBeUndefined();
    },
  );
});

describe('a time of day as people write it', () => {
  it.each([
    ['9', '09:00'],
    ['9:30', '09:30'],
    ['09.05', '09:05'],
    ['5 pm', '17:00'],
    ['5 p.m.', '17:00'],
    ['12 am', '00:00'],
    ['12 pm', '12:00'],
    ['noon', '12:00'],
    ['midnight', '00:00'],
    ['23:59', '23:59'],
  ])('%s is %s', (said, meant) => {
    expect(timeMeant(said)).toBe(meant);
  });
  it('midnight, and the 24th hour, may end a day and not begin one', () => {
    expect([timeMeant('midnight', true), timeMeant('24:00', true), timeMeant('24:00')]).toEqual([
      '24:00',
      '24:00',
      undefined,
    ]);
  });
  it.each(['25', '9:60', '13 pm', '0 am', '24:01'])('%s is none', (said) => {
    expect(timeMeant(said, true)).toBeUndefined();
  });
});

describe('days of the week as people write them', () => {
  it.each<[string, number[]]>([
    ['Monday to Friday', [1, 2, 3, 4, 5]],
    ['Sat - Mon', [1, 6, 7]],
    ['Sunday to Tuesday', [1, 2, 7]],
    ['Friday to Friday', [5]],
    ['Wed, Mon', [1, 3]],
    ['Thursdays and Tuesdays and Sundays', [2, 4, 7]],
    ['weekdays', [1, 2, 3, 4, 5]],
    ['working days', [1, 2, 3, 4, 5]],
    ['Wednesdays', [3]],
    ['weekend', [6, 7]],
  ])('%s', (said, days) => {
    expect(daysMeant(said)).toEqual(days);
  });
});

// Reference library: rrule, which reckons Easter by itself.
it('Easter is when other calendars have it', () => {
  const all = new RRule({
    freq: RRule.YEARLY,
    byeaster: 0,
    dtstart: new Date('1900-01-01T00:00Z'),
    count: 400,
  }).all();
  for (const date of all) {
    const day = date.toISOString().slice(0, 10);
    expect(dateMeant('Easter', `${day.slice(0, 4)}-01-01`)).toBe(day);
  }
});
// Dates of Easter as almanacs give them, from memory: the earliest and latest of this century among them.
it.each([
  [2008, '2008-03-23'],
  [2011, '2011-04-24'],
  [2019, '2019-04-21'],
  [2024, '2024-03-31'],
  [2025, '2025-04-20'],
  [2038, '2038-04-25'],
] as const)('Easter of %i', (year, date) => expect(dateMeant('Easter', `${year}-01-01`)).toBe(date));
// The day after the fourth Thursday of November; common practice.
it.each([
  ['2026-11-26', '2026-11-27'],
  ['2026-11-28', '2027-11-26'],
  ['2024-01-01', '2024-11-29'],
] as const)('seen from %s the next Black Friday is %s', (today, date) =>
  expect(dateMeant('Black Friday', today)).toBe(date),
);
it.each([
  ['Christmas Eve', '2026-12-24'],
  ['Christmas', '2026-12-25'],
  ['Christmas Day', '2026-12-25'],
  ['Boxing Day', '2026-12-26'],
  ['New Year', '2027-01-01'],
  ['Valentine’s Day', '2027-02-14'],
  ['midsummer’s day', '2027-06-24'],
  ['Halloween', '2027-10-31'],
  ["New Year's Eve", '2026-12-31'],
  ['New Year’s Day', '2027-01-01'],
  ['24/12', '2026-12-24'],
  ['24/12/2027', '2027-12-24'],
] as const)('%s', (said, date) => expect(dateMeant(said, '2026-11-26')).toBe(date));
it.each([
  ['this week', '2026-11-26', '2026-11-29'],
  ['next week', '2026-11-30', '2026-12-06'],
  ['this weekend', '2026-11-28', '2026-11-29'],
  ['next weekend', '2026-12-05', '2026-12-06'],
  ['this month', '2026-11-26', '2026-11-30'],
  ['next month', '2026-12-01', '2026-12-31'],
  ['November', '2026-11-26', '2026-11-30'],
  ['all of February', '2027-02-01', '2027-02-28'],
] as const)('%s, on a Thursday, is %s to %s', (said, first, last) =>
  expect(stretchMeant(said, '2026-11-26')).toEqual([first, last]),
);
it('a weekend that has begun is what is left of it', () => {
  expect(stretchMeant('this weekend', '2026-11-28')).toEqual(['2026-11-28', '2026-11-29']);
  expect(stretchMeant('this weekend', '2026-11-29')).toEqual(['2026-11-29', '2026-11-29']);
});
it.each([
  [2, 'weeks', '2026-12-09'],
  [1, 'day', '2026-11-26'],
  [1, 'month', '2026-12-25'],
] as const)('%i %s from today on end on %s', (count, unit, last) =>
  expect(lastOf(count, unit, '2026-11-26')).toBe(last),
);
it('a month from the last of January ends in February', () =>
  expect(lastOf(1, 'month', '2026-01-31')).toBe('2026-02-27'));
