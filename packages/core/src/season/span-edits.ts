import type { Schedule } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { isSame } from '../merge/is-same.ts';
import {
  dayNumber,
  type Interval,
  joined,
  minutesOf,
  shared,
  stretchesBetween,
  weekdayOf,
} from '../schedule/schedule.ts';
import { instantOf, wallClock } from '../schedule/zone.ts';
import { listOf } from '../sentence/words.ts';
import { wholeDays } from './season.ts';
import type { Zoom } from './window.ts';

/** Whole days of a site's own clocks that were taken hold of: local dates, the last one in it. */
export interface DaySpan {
  readonly from: string;
  readonly to: string;
}
/** Hours of every day, as a schedule has them; they end no later than the day. */
export interface HourSpan {
  readonly from: string;
  readonly to: string;
}
export type TimeSpan = ({ readonly of: 'days' } & DaySpan) | ({ readonly of: 'hours' } & HourSpan);

const HOUR_MS = 3_600_000;
const DAY_MS = 86_400_000;
const DAY_MINUTES = 1440;
const ALL_WEEKDAYS = [1, 2, 3, 4, 5, 6, 7] as const;
const ALWAYS: Schedule = { zone: 'site', start: null, end: null, days: [], hours: [], blackouts: [] };

/** What lies between two instants, in either order, as it can be taken hold of: whole days, or in the window of a day whole hours. */
export function spanBetween(zoom: Zoom, oneMs: number, otherMs: number, zone: string): TimeSpan {
  const [from, until] = [Math.min(oneMs, otherMs), Math.max(oneMs, otherMs)].map((ms) => wallClock(ms, zone));
  const day = (wallMs = 0) => dateOf(Math.floor(wallMs / DAY_MS));
  if (zoom !== 'day') return { of: 'days', from: day(from), to: day(until) };
  const hour = (wallMs = 0) => Math.floor((wallMs % DAY_MS) / HOUR_MS);
  return { of: 'hours', from: timeOf(hour(from) * 60), to: timeOf((hour(until) + 1) * 60) };
}

/** Where a span lies in the window it was taken hold of in. */
export function spanInterval(span: TimeSpan, window: Interval, zone: string): Interval {
  if (span.of === 'days') return wholeDays(span, zone);
  const midnight = wallClock(window[0], zone);
  const at = (time: string) => instantOf(midnight + minutesOf(time) * 60_000, zone);
  return [at(span.from), at(span.to)];
}

export const spanEdits = (before: Schedule | null, span: TimeSpan): readonly SpanEdit[] =>
  span.of === 'days' ? dayEdits(before, span) : hourEdits(before, span);

/** What a schedule would be, and how that is said. `null` runs always. */
export interface SpanEdit {
  readonly id: 'begin' | 'end' | 'only' | 'out' | 'in' | 'weekdays' | 'never' | 'too';
  readonly words: string;
  readonly schedule: Schedule | null;
}

const dateOf = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10);
const timeOf = (minutes: number): string =>
  [Math.floor(minutes / 60), minutes % 60].map((part) => String(part).padStart(2, '0')).join(':');

const dateWords = (day: number): string =>
  new Date(day * DAY_MS).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
/** Of 5 January 1970 on: a Monday and the six days after it. */
const weekdayWords = (weekday: number): string =>
  new Date((weekday + 3) * DAY_MS).toLocaleDateString('en-GB', { weekday: 'long', timeZone: 'UTC' });

/** As it is stored: a schedule that leaves nothing out is none. */
const settled = (schedule: Schedule): Schedule | null =>
  isSame({ ...schedule, zone: ALWAYS.zone }, ALWAYS) ? null : schedule;

/** Offered is what changes something, and what leaves the campaign some time to run. */
function offered(
  before: Schedule | null,
  edits: readonly (Omit<SpanEdit, 'schedule'> & { readonly change: Partial<Schedule> | undefined })[],
): readonly SpanEdit[] {
  return edits.flatMap(({ id, words, change }) => {
    if (!change) return [];
    const next = { ...(before ?? ALWAYS), ...change };
    const [from, until] = [next.start, next.end].map((local) => local && Date.parse(`${local}:00Z`));
    // Without a last day there is always another. By clocks that never change: hours that a change swallows are no reason.
    const isEmpty =
      typeof from === 'number' &&
      typeof until === 'number' &&
      stretchesBetween(next, from, until, 'UTC').length === 0;
    const schedule = settled(next);
    return isEmpty || isSame(schedule, before) ? [] : [{ id, words, schedule }];
  });
}

/** Days left out, in order and apart. */
function blackoutsOf(days: readonly (readonly [from: number, until: number])[]): Schedule['blackouts'] {
  return joined(days).map(([from, until]) => ({ from: dateOf(from), to: dateOf(until - 1) }));
}

/** What can be done about whole days of a campaign's schedule. */
export function dayEdits(before: Schedule | null, span: DaySpan): readonly SpanEdit[] {
  const { days: weekdays, blackouts } = before ?? ALWAYS;
  const [first, until] = [dayNumber(span.from), dayNumber(span.to) + 1];
  const count = until - first;
  const these = count === 1 ? dateWords(first) : `${dateWords(first)} to ${dateWords(until - 1)}`;
  const start = `${span.from}T00:00`;
  const end = `${dateOf(until)}T00:00`;
  const left = blackouts.map(({ from, to }) => [dayNumber(from), dayNumber(to) + 1] as const);
  const out = blackoutsOf([...left, [first, until]]);
  const isOut = left.some(([from, to]) => from < until && first < to);
  const kept = left.flatMap(([from, to]) =>
    [[from, Math.min(to, first)] as const, [Math.max(from, until), to] as const].filter(([a, b]) => a < b),
  );
  const touched = ALL_WEEKDAYS.filter(
    (weekday) => count < 7 && Array.from({ length: count }, (_, n) => weekdayOf(first + n)).includes(weekday),
  );
  const named = listOf(touched.map((weekday) => `${weekdayWords(weekday)}s`));
  const open: readonly number[] = weekdays.length > 0 ? weekdays : ALL_WEEKDAYS;
  const rest = open.filter((weekday) => !touched.some((one) => one === weekday));
  const more = ALL_WEEKDAYS.filter(
    (weekday) => open.includes(weekday) || touched.some((one) => one === weekday),
  );
  const asDays = (of: readonly number[]) => (of.length === ALL_WEEKDAYS.length ? [] : [...of]);
  const hasMore = more.length > open.length;
  return offered(before, [
    { id: 'begin', words: `Begins on ${dateWords(first)}`, change: { start } },
    { id: 'end', words: `Ends after ${dateWords(until - 1)}`, change: { end } },
    { id: 'only', words: `Runs on ${these} only`, change: { start, end } },
    {
      id: 'out',
      words: `Leaves out ${these}`,
      change: out.length <= LIMITS.blackouts ? { blackouts: out } : undefined,
    },
    {
      id: 'in',
      words: `Lets ${these} in again`,
      change: isOut && kept.length <= LIMITS.blackouts ? { blackouts: blackoutsOf(kept) } : undefined,
    },
    {
      id: 'weekdays',
      words: hasMore ? `Runs on ${named} too` : `Never runs on ${named}`,
      change:
        touched.length === 0 || (!hasMore && rest.length === 0)
          ? undefined
          : { days: asDays(hasMore ? more : rest) },
    },
  ]);
}

type Minutes = readonly [from: number, until: number];

/**
 * What is left of a day's stretches without some hours; nothing where a rest would begin after midnight, and so belong to another
 * day than before.
 */
function without(stretches: readonly Minutes[], [from, until]: Minutes): readonly Minutes[] | undefined {
  const cut = (of: readonly Minutes[], [a, b]: Minutes) =>
    of.flatMap(([begin, end]): Minutes[] =>
      [[begin, Math.min(end, a)] as const, [Math.max(begin, b), end] as const].filter(([x, y]) => x < y),
    );
  const left = cut(cut(stretches, [from, until]), [from + DAY_MINUTES, until + DAY_MINUTES]);
  return left.every(([begin]) => begin < DAY_MINUTES) ? left : undefined;
}

const asHours = (stretches: readonly Minutes[]): Schedule['hours'] =>
  stretches.length === 1 && stretches[0]?.[0] === 0 && stretches[0][1] === DAY_MINUTES
    ? []
    : stretches.map(([from, until]) => ({
        from: timeOf(from),
        to: timeOf(until > DAY_MINUTES ? until - DAY_MINUTES : until),
      }));

/** What can be done about hours of every day. */
export function hourEdits(before: Schedule | null, span: HourSpan): readonly SpanEdit[] {
  const { hours } = before ?? ALWAYS;
  const taken: Minutes = [minutesOf(span.from), minutesOf(span.to)];
  const these = `from ${span.from} to ${span.to}`;
  const now = (hours.length > 0 ? hours : [{ from: '00:00', to: '24:00' }]).map(({ from, to }): Minutes => {
    const [begin, end] = [minutesOf(from), minutesOf(to)];
    // Hours that end no later than they begin reach into the next day.
    return [begin, end > begin ? end : end + DAY_MINUTES];
  });
  const left = without(now, taken);
  const hadOf = shared([taken], joined(now)).reduce((sum, [from, until]) => sum + until - from, 0);
  const together = joined([...now, taken]);
  // One that would be longer than a day cannot be said as one.
  const more = together.every(([from, until]) => until - from <= DAY_MINUTES) ? together : [...now, taken];
  const within = (stretches: readonly Minutes[] | undefined) =>
    stretches && stretches.length > 0 && stretches.length <= LIMITS.hours
      ? { hours: asHours(stretches) }
      : undefined;
  return offered(before, [
    { id: 'only', words: `Runs ${these} only`, change: within([taken]) },
    { id: 'never', words: `Never runs ${these}`, change: within(left && joined(left)) },
    { id: 'too', words: `Runs ${these} too`, change: hadOf < taken[1] - taken[0] ? within(more) : undefined },
  ]);
}
