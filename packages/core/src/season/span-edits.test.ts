import type { Schedule } from '@velarium/contract';
import { scheduleSchema } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stretchesBetween } from '../schedule/schedule.ts';
import { dayEdits, hourEdits, type SpanEdit, spanBetween, spanEdits, spanInterval } from './span-edits.ts';
import { seasonWindow } from './window.ts';

const always: Schedule = { zone: 'site', start: null, end: null, days: [], hours: [], blackouts: [] };
const of = (change: Partial<Schedule>): Schedule => ({ ...always, ...change });
const named = (edits: readonly SpanEdit[], id: SpanEdit['id']) => edits.find((edit) => edit.id === id);
const CHRISTMAS = { from: '2026-12-24', to: '2026-12-26' };

describe('whole days', () => {
  it.each<[before: Schedule | null, id: SpanEdit['id'], words: string, after: Partial<Schedule>]>([
    [null, 'begin', 'Begins on 24 Dec', { start: '2026-12-24T00:00' }],
    [null, 'end', 'Ends after 26 Dec', { end: '2026-12-27T00:00' }],
    [null, 'only', 'Runs on 24 Dec to 26 Dec only', { start: '2026-12-24T00:00', end: '2026-12-27T00:00' }],
    [null, 'out', 'Leaves out 24 Dec to 26 Dec', { blackouts: [CHRISTMAS] }],
    // Days that touch or overlap are left out as one.
    [
      of({ blackouts: [{ from: '2026-12-20', to: '2026-12-23' }] }),
      'out',
      'Leaves out 24 Dec to 26 Dec',
      { blackouts: [{ from: '2026-12-20', to: '2026-12-26' }] },
    ],
    [
      of({ blackouts: [{ from: '2026-12-20', to: '2026-12-31' }] }),
      'in',
      'Lets 24 Dec to 26 Dec in again',
      {
        blackouts: [
          { from: '2026-12-20', to: '2026-12-23' },
          { from: '2026-12-27', to: '2026-12-31' },
        ],
      },
    ],
    // A Thursday, a Friday and a Saturday.
    [null, 'weekdays', 'Never runs on Thursdays, Fridays and Saturdays', { days: [1, 2, 3, 7] }],
    [of({ days: [4] }), 'weekdays', 'Runs on Thursdays, Fridays and Saturdays too', { days: [4, 5, 6] }],
  ])('of %j: %s', (before, id, words, after) => {
    expect(named(dayEdits(before, CHRISTMAS), id)).toEqual({ id, words, schedule: of(after) });
  });
  it('one that is taken alone is called by itself', () => {
    const edits = dayEdits(null, { from: '2026-12-24', to: '2026-12-24' });
    expect(edits.map(({ words }) => words)).toEqual([
      'Begins on 24 Dec',
      'Ends after 24 Dec',
      'Runs on 24 Dec only',
      'Leaves out 24 Dec',
      'Never runs on Thursdays',
    ]);
  });
  it('nothing is offered that changes nothing, leaves no time to run, or names every weekday', () => {
    const ids = (before: Schedule, span = CHRISTMAS) => dayEdits(before, span).map(({ id }) => id);
    expect(ids(of({ start: '2026-12-24T00:00' }))).not.toContain('begin');
    expect(ids(of({ start: '2026-12-27T00:00' }))).not.toContain('end');
    expect(ids(of({ end: '2026-12-24T00:00' }))).not.toContain('begin');
    const whole = of({ start: '2026-12-24T00:00', end: '2026-12-27T00:00' });
    expect(ids(whole)).not.toContain('out');
    expect(ids(whole)).not.toContain('weekdays');
    expect(ids(of({ blackouts: [CHRISTMAS] }))).not.toContain('out');
    expect(ids(always)).not.toContain('in');
    const week = { from: '2026-12-21', to: '2026-12-27' };
    expect(ids(always, week)).not.toContain('weekdays');
    expect(ids(of({ days: [1] }), week)).not.toContain('weekdays');
    expect(ids(of({ days: [1] }), { ...week, to: '2026-12-26' })).toContain('weekdays');
  });
  it('with the last that was left out let in again, it runs always', () => {
    expect(named(dayEdits(of({ blackouts: [CHRISTMAS] }), CHRISTMAS), 'in')?.schedule).toBeNull();
  });
});

describe('hours of each day', () => {
  const EVENING = { from: '18:00', to: '22:00' };
  it.each<[before: Schedule['hours'], id: SpanEdit['id'], after: Schedule['hours'] | undefined]>([
    [[], 'only', [EVENING]],
    [
      [],
      'never',
      [
        { from: '00:00', to: '18:00' },
        { from: '22:00', to: '24:00' },
      ],
    ],
    [[], 'too', undefined],
    [[EVENING], 'too', undefined],
    [[EVENING], 'never', undefined],
    [[{ from: '09:00', to: '19:00' }], 'too', [{ from: '09:00', to: '22:00' }]],
    // Over midnight, and back.
    [[{ from: '20:00', to: '08:00' }], 'never', [{ from: '22:00', to: '08:00' }]],
    [[{ from: '20:00', to: '08:00' }], 'too', [{ from: '18:00', to: '08:00' }]],
  ])('of %j: %s', (hours, id, after) => {
    const schedule = named(hourEdits(hours.length > 0 ? of({ hours }) : null, EVENING), id)?.schedule;
    expect(schedule?.hours).toEqual(after);
  });
  it('a rest that would begin after midnight, and so on another day, is not offered', () => {
    const night = of({ hours: [{ from: '22:00', to: '08:00' }], days: [5] });
    expect(named(hourEdits(night, { from: '02:00', to: '04:00' }), 'never')).toBeUndefined();
    expect(named(hourEdits(night, { from: '02:00', to: '08:00' }), 'never')?.schedule?.hours).toEqual([
      { from: '22:00', to: '02:00' },
    ]);
  });
});

describe('at its edges', () => {
  const day = (from: string, to = from) => ({ from: `2026-12-${from}`, to: `2026-12-${to}` });
  const ids = (before: Schedule, span: typeof CHRISTMAS) => dayEdits(before, span).map(({ id }) => id);
  it('days beside those that are left out are not among them', () => {
    const out = of({ blackouts: [day('20', '23')] });
    expect(ids(out, day('24'))).not.toContain('in');
    expect(ids(out, day('19'))).not.toContain('in');
    expect(ids(out, day('23'))).toContain('in');
    expect(ids(out, day('20'))).toContain('in');
    expect(ids(out, day('18', '25'))).toContain('in');
  });
  it('no more is left out, and no more hours are said, than a schedule has room for', () => {
    const apart = (count: number) =>
      Array.from({ length: count }, (_, n) => {
        const date = new Date(Date.UTC(2027, 0, 1 + n * 10));
        const to = new Date(date.getTime() + 2 * 86_400_000);
        return { from: date.toISOString().slice(0, 10), to: to.toISOString().slice(0, 10) };
      });
    const offers = (count: number) => ids(of({ blackouts: apart(count) }), day('24')).includes('out');
    expect([offers(59), offers(60)]).toEqual([true, false]);
    // To let the middle of a stretch in again makes two of it.
    const parts = (count: number) =>
      ids(of({ blackouts: apart(count) }), { from: '2027-01-02', to: '2027-01-02' }).includes('in');
    expect([parts(59), parts(60)]).toEqual([true, false]);
    const hours = (count: number) =>
      of({
        hours: Array.from({ length: count }, (_, n) => ({
          from: `${String(n * 2).padStart(2, '0')}:00`,
          to: `${String(n * 2).padStart(2, '0')}:30`,
        })),
      });
    const more = (count: number) =>
      hourEdits(hours(count), { from: '22:00', to: '23:00' }).some(({ id }) => id === 'too');
    expect([more(7), more(8)]).toEqual([true, false]);
  });
  it('hours that are had in part are offered whole, and those that are had whole are not', () => {
    const has = (hours: Schedule['hours']) =>
      hourEdits(of({ hours }), { from: '10:00', to: '12:00' }).find(({ id }) => id === 'too')?.schedule
        ?.hours;
    expect(has([{ from: '09:00', to: '12:00' }])).toBeUndefined();
    expect(has([{ from: '09:00', to: '11:59' }])).toEqual([{ from: '09:00', to: '12:00' }]);
    expect(
      has([
        { from: '09:00', to: '11:00' },
        { from: '11:00', to: '12:00' },
      ]),
    ).toBeUndefined();
    // All day is no hours at all, and what would be longer than a day is said in two.
    expect(
      hourEdits(
        of({
          hours: [
            { from: '00:00', to: '10:00' },
            { from: '12:00', to: '24:00' },
          ],
        }),
        { from: '10:00', to: '12:00' },
      ).find(({ id }) => id === 'too')?.schedule,
    ).toBeNull();
    expect(has([{ from: '12:00', to: '11:00' }])).toEqual([
      { from: '12:00', to: '11:00' },
      { from: '10:00', to: '12:00' },
    ]);
    expect(has([{ from: '12:00', to: '10:00' }])).toEqual([{ from: '10:00', to: '10:00' }]);
  });
  it('what is taken hold of says of which kind it is', () => {
    expect(spanEdits(null, { of: 'days', ...CHRISTMAS }).map(({ id }) => id)).toContain('out');
    expect(spanEdits(null, { of: 'hours', from: '18:00', to: '22:00' }).map(({ id }) => id)).toEqual([
      'only',
      'never',
    ]);
  });
});

describe('what is taken hold of', () => {
  const at = (iso: string) => Date.parse(iso);
  const LONDON = 'Europe/London';
  it('is whole days by the zone’s clocks, in whichever direction', () => {
    const [late, early] = [at('2026-07-03T23:30Z'), at('2026-07-01T22:59Z')];
    const span = spanBetween('month', late, early, LONDON);
    expect(span).toEqual({ of: 'days', from: '2026-07-01', to: '2026-07-04' });
    expect(spanInterval(span, [0, 0], LONDON)).toEqual([at('2026-06-30T23:00Z'), at('2026-07-04T23:00Z')]);
  });
  it('is whole hours in the window of a day, to its very end', () => {
    const window = seasonWindow('day', at('2026-12-24T12:00Z'), LONDON);
    const span = spanBetween('day', at('2026-12-24T18:20Z'), at('2026-12-24T23:59Z'), LONDON);
    expect(span).toEqual({ of: 'hours', from: '18:00', to: '24:00' });
    expect(spanInterval(span, window, LONDON)).toEqual([at('2026-12-24T18:00Z'), at('2026-12-25T00:00Z')]);
  });
});

describe('whatever a schedule says', () => {
  const minutes = fc.integer({ min: 0, max: 95 }).map((quarter) => quarter * 15);
  const time = (at: number) =>
    `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`;
  const hours = fc.array(
    fc.tuple(minutes, minutes).map(([from, to]) => ({ from: time(from), to: time(to) })),
    { maxLength: 3 },
  );
  const date = fc
    .integer({ min: 0, max: 20 })
    .map((day) => new Date(Date.UTC(2026, 10, 20 + day)).toISOString().slice(0, 10));
  const dates = fc.tuple(date, date).map((pair) => {
    const [from = '', to = ''] = [...pair].sort();
    return { from, to };
  });
  const schedules = fc.record({
    zone: fc.constant('site' as const),
    start: fc.constant(null),
    end: fc.constant(null),
    days: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { maxLength: 6 }),
    hours,
    blackouts: fc.array(dates, { maxLength: 3 }),
  });
  const QUARTER_MS = 900_000;
  const [FROM, UNTIL] = [Date.UTC(2026, 10, 18), Date.UTC(2026, 11, 12)];
  /** Whether it is open in each quarter of an hour of these weeks, by clocks that never change. */
  const openIn = (schedule: Schedule | null): readonly boolean[] => {
    const open = Array.from({ length: (UNTIL - FROM) / QUARTER_MS }, () => false);
    for (const [from, until] of stretchesBetween(schedule, FROM, UNTIL, 'UTC'))
      open.fill(true, (from - FROM) / QUARTER_MS, (until - FROM) / QUARTER_MS);
    return open;
  };
  const isLegal = (schedule: Schedule | null) =>
    schedule === null || scheduleSchema.safeParse(schedule).success;

  it('never in some hours is as before but for those, and those too is as before with them', () => {
    fc.assert(
      fc.property(schedules, minutes, minutes, (before, a, b) => {
        fc.pre(a !== b);
        const [from, to] = [Math.min(a, b), Math.max(a, b)];
        const taken = openIn({ ...always, hours: [{ from: time(from), to: time(to) }] });
        const [was, ofDays] = [openIn(before), openIn({ ...before, hours: [] })];
        const wanted: Partial<Record<SpanEdit['id'], readonly boolean[]>> = {
          never: was.map((isOpen, n) => isOpen && !taken[n]),
          only: taken.map((isTaken, n) => isTaken && (ofDays[n] as boolean)),
          too: was.map((isOpen, n) => isOpen || ((taken[n] as boolean) && (ofDays[n] as boolean))),
        };
        for (const { id, schedule } of hourEdits(before, { from: time(from), to: time(to) })) {
          expect(isLegal(schedule)).toBe(true);
          expect(openIn(schedule)).toEqual(wanted[id]);
        }
      }),
    );
  });
  it('days left out are closed, and let in again they are as if nobody had left them out', () => {
    const wholeDays = schedules.map((schedule) => ({ ...schedule, hours: [] }));
    fc.assert(
      fc.property(wholeDays, dates, (before, span) => {
        const taken = openIn({ ...always, start: `${span.from}T00:00`, end: `${dayAfter(span.to)}T00:00` });
        const [was, withoutOut] = [openIn(before), openIn({ ...before, blackouts: [] })];
        const wanted: Partial<Record<SpanEdit['id'], readonly boolean[]>> = {
          out: was.map((isOpen, n) => isOpen && !taken[n]),
          in: was.map((isOpen, n) => (taken[n] ? (withoutOut[n] as boolean) : isOpen)),
          only: was.map((isOpen, n) => isOpen && (taken[n] as boolean)),
        };
        for (const { id, schedule } of dayEdits(before, span)) {
          expect(isLegal(schedule)).toBe(true);
          if (wanted[id]) expect(openIn(schedule)).toEqual(wanted[id]);
        }
      }),
    );
  });
  const dayAfter = (local: string) =>
    new Date(Date.parse(`${local}T00:00Z`) + 86_400_000).toISOString().slice(0, 10);
});
