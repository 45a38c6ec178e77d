import { expect, it } from 'vitest';
import { clockChanges } from './clock-changes.ts';

const year = (of: number): [number, number] => [Date.UTC(of, 0, 1), Date.UTC(of + 1, 0, 1)];
const changes = (of: number, zone: string) =>
  clockChanges(...year(of), zone).map(
    ({ atMs, minutes }) => `${new Date(atMs).toISOString().slice(0, 16)} ${minutes}`,
  );

/** Source: IANA time zone database; the European rule is Directive 2000/84/EC, 01:00 UTC on the last Sundays. */
it.each([
  ['Europe/London', 2026, ['2026-03-29T01:00 60', '2026-10-25T01:00 -60']],
  ['Europe/London', 2027, ['2027-03-28T01:00 60', '2027-10-31T01:00 -60']],
  ['America/New_York', 2026, ['2026-03-08T07:00 60', '2026-11-01T06:00 -60']],
  ['Australia/Lord_Howe', 2026, ['2026-04-04T15:00 -30', '2026-10-03T16:00 30']],
  ['Asia/Tokyo', 2026, []],
  ['UTC', 2026, []],
])('%s in %i', (zone, of, expected) => {
  expect(changes(of, zone)).toEqual(expected);
});
