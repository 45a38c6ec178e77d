import { describe, expect, it } from 'vitest';
import { dateMeant, dayAfter, timeMeant } from './dates.ts';

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
  ])('%s, on %s, is %s', (said, today, meant) => {
    expect(dateMeant(said, today)).toBe(meant);
  });
  it.each(['2026-13-01', '2026-02-30', '31.11.2026', '29 February 2027'])('%s is none', (said) => {
    expect(dateMeant(said, '2026-11-29')).toBeUndefined();
  });
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
