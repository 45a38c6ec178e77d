import { expect, it } from 'vitest';
import { wallClock } from './zone.ts';

// Source: IANA time zone database; Kathmandu is 5:45 ahead, Lord Howe's summer time half an hour.
it.each([
  ['2026-11-26T12:00:00.000Z', 'Europe/London', '2026-11-26T12:00:00.000Z'],
  ['2026-06-26T12:00:00.007Z', 'Europe/London', '2026-06-26T13:00:00.007Z'],
  ['2026-06-26T12:00:00.999Z', 'Asia/Kathmandu', '2026-06-26T17:45:00.999Z'],
  ['2026-01-26T12:00:00.500Z', 'Australia/Lord_Howe', '2026-01-26T23:00:00.500Z'],
  ['1969-12-31T23:59:59.250Z', 'UTC', '1969-12-31T23:59:59.250Z'],
])('%s is read in %s as %s', (at, zone, wall) => {
  expect(new Date(wallClock(Date.parse(at), zone)).toISOString()).toBe(wall);
});
