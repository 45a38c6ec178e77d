import { Temporal } from '@js-temporal/polyfill';
import { type Schedule, scheduleSchema } from '@velarium/contract';
import fc from 'fast-check';
import rrule from 'rrule';
import { describe, expect, it } from 'vitest';
import { deriveState, type StoredState } from './campaign-state.ts';
import { type Interval, joined, nextChange, scheduleState, shared, stretchesBetween } from './schedule.ts';
import { instantOf, wallClock } from './zone.ts';

const { RRule } = rrule;
const ZONES = [
  'Europe/London',
  'America/New_York',
  'Asia/Kolkata',
  'Australia/Lord_Howe',
  'UTC',
  'Asia/Tokyo',
] as const;
const always: Schedule = { zone: 'site', start: null, end: null, days: [], hours: [], blackouts: [] };
const at = (iso: string) => Date.parse(iso);
const state = (schedule: Partial<Schedule>, iso: string, zone = 'Europe/London') =>
  scheduleState({ ...always, ...schedule }, at(iso), zone);
const next = (schedule: Partial<Schedule>, iso: string, zone = 'Europe/London') => {
  const ms = nextChange({ ...always, ...schedule }, at(iso), zone);
  return ms === null ? null : new Date(ms).toISOString().replace('.000', '');
};

it('nothing set never changes', () => {
  expect(nextChange(null, at('2026-11-01T12:00Z'), 'UTC')).toBeNull();
});

const someTime = fc
  .integer({ min: 0, max: 24 * 4 })
  .map((q) => `${String(Math.floor(q / 4)).padStart(2, '0')}:${String((q % 4) * 15).padStart(2, '0')}`);
const someDay = fc
  .integer({ min: 0, max: 60 })
  .map((d) => new Date(at('2026-10-01T00:00Z') + d * 86_400_000).toISOString().slice(0, 10));
const local = fc
  .tuple(someDay, fc.constantFrom('00:00', '09:30', '23:45'))
  .map(([day, time]) => `${day}T${time}`);
const someSchedule = fc.record({
  zone: fc.constant('site' as const),
  start: fc.option(local, { nil: null }),
  end: fc.option(local, { nil: null }),
  days: fc.subarray([1, 2, 3, 4, 5, 6, 7]),
  hours: fc.array(fc.record({ from: someTime.filter((time) => time !== '24:00'), to: someTime }), {
    maxLength: 2,
  }),
  blackouts: fc.array(
    fc.tuple(someDay, someDay).map(([a, b]) => (a < b ? { from: a, to: b } : { from: b, to: a })),
    { maxLength: 2 },
  ),
});

describe('a reading of the clock becomes the instant Temporal’s "compatible" says', () => {
  // Published: RFC 5545, 3.3.5, and the TC39 Temporal documentation on ambiguity; zones of the IANA database.
  it.each([
    [
      'a gap in London: 01:30 is carried on to 02:30',
      '2026-03-29T01:30',
      'Europe/London',
      '2026-03-29T01:30:00Z',
    ],
    ['an overlap in London: the first 01:30', '2026-10-25T01:30', 'Europe/London', '2026-10-25T00:30:00Z'],
    ['a gap in New York', '2026-03-08T02:30', 'America/New_York', '2026-03-08T07:30:00Z'],
    ['an overlap in New York', '2026-11-01T01:30', 'America/New_York', '2026-11-01T05:30:00Z'],
    ['half an hour of difference', '2026-06-01T12:00', 'Asia/Kolkata', '2026-06-01T06:30:00Z'],
  ])('%s', (_what, local, zone, iso) => {
    expect(new Date(instantOf(at(`${local}:00Z`), zone)).toISOString()).toBe(new Date(at(iso)).toISOString());
  });

  it('as the reference library has it, at any minute in any zone', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...ZONES),
        fc.integer({ min: 0, max: 20 * 366 * 1440 }),
        (zone, minutes) => {
          const wallMs = at('2015-01-01T00:00:00Z') + minutes * 60_000;
          const local = new Date(wallMs).toISOString().slice(0, 16);
          const expected = Temporal.PlainDateTime.from(local).toZonedDateTime(zone, {
            disambiguation: 'compatible',
          });
          expect(instantOf(wallMs, zone)).toBe(expected.epochMilliseconds);
          const shown = Temporal.Instant.fromEpochMilliseconds(wallMs)
            .toZonedDateTimeISO(zone)
            .toPlainDateTime()
            .toString();
          expect(new Date(wallClock(wallMs, zone)).toISOString().slice(0, 16)).toBe(shown.slice(0, 16));
        },
      ),
      { numRuns: 2000 },
    );
  });
});

describe('when a campaign runs', () => {
  it.each<[rule: string, schedule: Partial<Schedule>, iso: string, expected: string]>([
    ['without a schedule always', {}, '2026-11-25T12:00Z', 'open'],
    ['its start is in it', { start: '2026-12-01T09:00' }, '2026-12-01T09:00Z', 'open'],
    ['a moment before is not', { start: '2026-12-01T09:00' }, '2026-12-01T08:59:59.999Z', 'before'],
    ['its end is not in it', { end: '2026-12-01T09:00' }, '2026-12-01T09:00Z', 'after'],
    ['on a named day', { days: [2] }, '2026-12-01T12:00Z', 'open'],
    ['not on another', { days: [2] }, '2026-12-02T12:00Z', 'closed'],
    ['within its hours', { hours: [{ from: '18:00', to: '22:00' }] }, '2026-12-01T18:00Z', 'open'],
    [
      'the end of its hours is not in them',
      { hours: [{ from: '18:00', to: '22:00' }] },
      '2026-12-01T22:00Z',
      'closed',
    ],
    ['hours over midnight', { hours: [{ from: '22:00', to: '02:00' }] }, '2026-12-02T01:59Z', 'open'],
    [
      'hours over midnight belong to the day they begin on',
      { days: [1], hours: [{ from: '22:00', to: '02:00' }] },
      '2026-12-01T01:00Z',
      'open',
    ],
    [
      'and not to the day they end on',
      { days: [2], hours: [{ from: '22:00', to: '02:00' }] },
      '2026-12-01T01:00Z',
      'closed',
    ],
    [
      'not on a blackout day',
      { blackouts: [{ from: '2026-12-24', to: '2026-12-26' }] },
      '2026-12-26T23:59Z',
      'closed',
    ],
    [
      'again the day after',
      { blackouts: [{ from: '2026-12-24', to: '2026-12-26' }] },
      '2026-12-27T00:00Z',
      'open',
    ],
    ['in summer by summer time', { hours: [{ from: '09:00', to: '10:00' }] }, '2026-07-01T08:30Z', 'open'],
  ])('%s', (_rule, schedule, iso, expected) => {
    expect(state(schedule, iso)).toBe(expected);
  });
});

describe('the next change', () => {
  it.each<[rule: string, schedule: Partial<Schedule>, iso: string, expected: string | null]>([
    ['never without a schedule', {}, '2026-11-25T12:00Z', null],
    ['the start', { start: '2027-06-01T09:00' }, '2026-11-25T12:00Z', '2027-06-01T08:00:00Z'],
    ['the end, however far', { end: '2031-01-01T00:00' }, '2026-11-25T12:00Z', '2031-01-01T00:00:00Z'],
    ['none after the end', { end: '2026-01-01T00:00' }, '2026-11-25T12:00Z', null],
    ['tonight', { hours: [{ from: '18:00', to: '22:00' }] }, '2026-11-25T12:00Z', '2026-11-25T18:00:00Z'],
    ['next Monday', { days: [1] }, '2026-11-25T12:00Z', '2026-11-30T00:00:00Z'],
    [
      'hours that touch are one',
      {
        hours: [
          { from: '08:00', to: '12:00' },
          { from: '12:00', to: '20:00' },
        ],
      },
      '2026-11-25T09:00Z',
      '2026-11-25T20:00:00Z',
    ],
    [
      'the start outside its hours waits for them',
      { start: '2026-12-01T09:00', hours: [{ from: '18:00', to: '20:00' }] },
      '2026-11-25T12:00Z',
      '2026-12-01T18:00:00Z',
    ],
    [
      'over the change to summer time',
      { hours: [{ from: '00:00', to: '03:00' }] },
      '2026-03-29T00:30Z',
      '2026-03-29T02:00:00Z',
    ],
  ])('%s', (_rule, schedule, iso, expected) => {
    expect(next(schedule, iso)).toBe(expected);
  });

  it('is exact: the state holds until then and differs from then on', () => {
    fc.assert(
      fc.property(
        someSchedule,
        fc.constantFrom(...ZONES),
        fc.integer({ min: 0, max: 60 * 96 }),
        (schedule, zone, quarter) => {
          const from = at('2026-10-01T00:00Z') + quarter * 900_000;
          const isOpen = (ms: number) => scheduleState(schedule, ms, zone) === 'open';
          const change = nextChange(schedule, from, zone);
          if (change !== null) {
            expect(change).toBeGreaterThan(from);
            expect(isOpen(change)).toBe(!isOpen(from));
            expect(isOpen(change - 1)).toBe(isOpen(from));
          }
          // Every quarter of an hour until then, or for four days, is as it was.
          for (
            let ms = from;
            ms < Math.min(change ?? Number.POSITIVE_INFINITY, from + 4 * 86_400_000);
            ms += 900_000
          ) {
            expect(isOpen(ms)).toBe(isOpen(from));
          }
        },
      ),
      { numRuns: 250 },
    );
  });
});

it('opens when the recurrence rule of RFC 5545 that says the same does', () => {
  // Reference: rrule, an implementation of RFC 5545, section 3.3.10.
  const someDays = fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 });
  const start = at('2026-02-01T00:00Z');
  const until = start + 60 * 86_400_000;
  fc.assert(
    fc.property(
      someDays,
      fc.integer({ min: 1, max: 20 }),
      fc.constantFrom(0, 15, 30),
      (days, hour, minute) => {
        const time = (hours: number) =>
          `${String(hours).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
        const schedule = { ...always, days, hours: [{ from: time(hour), to: time(hour + 2) }] };
        const opened: number[] = [];
        for (
          let ms = nextChange(schedule, start, 'UTC');
          ms !== null && ms < until;
          ms = nextChange(schedule, ms, 'UTC')
        )
          if (scheduleState(schedule, ms, 'UTC') === 'open') opened.push(ms);
        const rule = new RRule({
          freq: RRule.WEEKLY,
          byweekday: days.map((day) => day - 1),
          byhour: [hour],
          byminute: [minute],
          bysecond: [0],
          dtstart: new Date(start),
        });
        expect(opened).toEqual(rule.between(new Date(start), new Date(until)).map((date) => date.getTime()));
      },
    ),
    { numRuns: 60 },
  );
});

describe('a campaign’s state follows from its schedule', () => {
  const schedule: Schedule = {
    ...always,
    start: '2026-12-01T09:00',
    end: '2026-12-24T18:00',
    hours: [{ from: '09:00', to: '18:00' }],
  };
  it.each<[when: string, stored: StoredState, iso: string, state: string, next: string | null]>([
    ['before its start', 'running', '2026-11-25T12:00Z', 'scheduled', '2026-12-01T09:00Z'],
    ['in its hours', 'running', '2026-12-02T12:00Z', 'running', '2026-12-02T18:00Z'],
    ['between its hours', 'running', '2026-12-02T20:00Z', 'running', '2026-12-03T09:00Z'],
    ['from its end on', 'running', '2026-12-24T18:00Z', 'ended', null],
    ['at rest', 'resting', '2026-12-02T12:00Z', 'resting', null],
  ])('%s', (_when, stored, iso, state, nextIso) => {
    expect(deriveState(stored, schedule, at(iso), 'Europe/London')).toEqual({
      state,
      nextChangeMs: nextIso && at(nextIso),
    });
  });

  it('without a schedule it is what is stored', () => {
    expect(deriveState('running', null, 0, 'UTC')).toEqual({ state: 'running', nextChangeMs: null });
  });
});

describe('what misled the search for the next change', () => {
  it('a blackout of years: the first day after it is found', () => {
    const blackouts = [{ from: '2026-12-01', to: '2031-05-31' }];
    expect(next({ blackouts }, '2026-12-24T12:00Z', 'UTC')).toBe('2031-06-01T00:00:00Z');
    expect(next({ blackouts, days: [1] }, '2026-12-24T12:00Z', 'UTC')).toBe('2031-06-02T00:00:00Z');
  });
  it('two of them, one after the other', () => {
    const blackouts = [
      { from: '2026-12-01', to: '2029-05-31' },
      { from: '2029-06-01', to: '2033-01-01' },
    ];
    expect(next({ blackouts }, '2026-12-24T12:00Z', 'UTC')).toBe('2033-01-02T00:00:00Z');
  });
  it('a stretch that begins where the day ends is none', () => {
    const hours = [{ from: '24:00', to: '24:00' }];
    expect(state({ hours }, '2026-12-24T12:00Z')).toBe('closed');
    expect(next({ hours }, '2026-12-24T12:00Z')).toBeNull();
  });
});

describe('what the calendar does not have is refused when it is saved', () => {
  it.each<[what: string, change: object]>([
    ['a thirteenth month', { start: '2026-13-01T00:00' }],
    ['an hour 25', { start: '2026-12-01T25:00' }],
    ['30 February', { end: '2026-02-30T12:00' }],
    ['29 February of a year without one', { blackouts: [{ from: '2027-02-29', to: '2027-03-01' }] }],
    ['a minute 60', { end: '2026-12-01T10:60' }],
    ['hours that begin where the day ends', { hours: [{ from: '24:00', to: '24:00' }] }],
    ['a blackout that ends before it begins', { blackouts: [{ from: '2026-12-24', to: '2026-12-01' }] }],
  ])('%s', (_what, change) => {
    expect(scheduleSchema.safeParse({ ...always, ...change }).success).toBe(false);
  });
  it('29 February of a leap year is there', () => {
    expect(scheduleSchema.safeParse({ ...always, start: '2028-02-29T00:00' }).success).toBe(true);
  });
});

describe('stretches between two instants', () => {
  const DAY = 86_400_000;
  const begin = at('2026-10-01T00:00Z');
  it('are when the schedule is open, and no two of them touch', () => {
    fc.assert(
      fc.property(
        someSchedule,
        fc.constantFrom(...ZONES),
        fc.nat(40),
        fc.nat(30),
        (schedule, zone, first, days) => {
          const [from, to] = [begin + first * DAY, begin + (first + days) * DAY];
          const found = stretchesBetween(schedule, from, to, zone);
          const isIn = (ms: number) => found.some(([opens, shuts]) => opens <= ms && ms < shuts);
          for (let ms = from; ms < to; ms += 5 * 3_600_000)
            expect(isIn(ms)).toBe(scheduleState(schedule, ms, zone) === 'open');
          for (const [n, [opens, shuts]] of found.entries()) {
            expect(from <= opens && opens < shuts && shuts <= to).toBe(true);
            expect(opens).toBeGreaterThan(found[n - 1]?.[1] ?? Number.NEGATIVE_INFINITY);
          }
        },
      ),
    );
  });
  it('without a schedule are all of it', () => {
    expect(stretchesBetween(null, 5, 9, 'UTC')).toEqual([[5, 9]]);
    expect(stretchesBetween(null, 9, 9, 'UTC')).toEqual([]);
  });
  it('a day on which clocks change is as long as it is', () => {
    const found = stretchesBetween(always, at('2026-10-24T23:00Z'), at('2026-10-26T00:00Z'), 'Europe/London');
    expect(found).toEqual([[at('2026-10-24T23:00Z'), at('2026-10-26T00:00Z')]]);
  });
  const list = fc
    .array(fc.tuple(fc.nat(50), fc.nat(10)), { maxLength: 6 })
    .map((all) => joined(all.map(([from, length]): Interval => [from, from + length + 1])));
  it('two lists share what is in both', () => {
    fc.assert(
      fc.property(list, list, fc.nat(65), (a, b, ms) => {
        const isIn = (all: readonly Interval[]) => all.some(([from, to]) => from <= ms && ms < to);
        expect(isIn(shared(a, b))).toBe(isIn(a) && isIn(b));
      }),
    );
  });
});
