import type { Schedule } from '@velarium/contract';
import { instantOf, wallClock } from './zone.ts';

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;

/** Days looked ahead for a change without an end, those of blackouts not counted: two years. */
const HORIZON_DAYS = 800;

export type ScheduleState = 'open' | 'before' | 'after' | 'closed';

const wallOf = (local: string): number => Date.parse(`${local}:00Z`);
const dayOf = (wallMs: number): number => Math.floor(wallMs / DAY_MS);
/** Of a local date: days since 1970. */
export const dayNumber = (date: string): number => dayOf(Date.parse(`${date}T00:00Z`));
/** Of a time of day, since midnight. */
export const minutesOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
/** 1 Monday to 7 Sunday, of a day since the epoch, whose day 0 was a Thursday. */
export const weekdayOf = (day: number): number => ((((day + 3) % 7) + 7) % 7) + 1;

/**
 * Whether a campaign may run at this instant. All stretches are half-open. `zone` is the one its schedule asks for:
 * the site's or the visitor's.
 */
export function scheduleState(schedule: Schedule | null, atMs: number, zone: string): ScheduleState {
  if (!schedule) return 'open';
  if (schedule.start && atMs < instantOf(wallOf(schedule.start), zone)) return 'before';
  if (schedule.end && atMs >= instantOf(wallOf(schedule.end), zone)) return 'after';
  // An instant belongs to the stretches that begin at or before it; yesterday's may reach over midnight.
  const today = dayOf(wallClock(atMs, zone));
  return [today - 1, today].some((day) =>
    stretches(schedule, day, zone).some(([from, to]) => from <= atMs && atMs < to),
  )
    ? 'open'
    : 'closed';
}

/** A day's open stretches as instants. Hours that end no later than they begin reach into the next day. */
function stretches(schedule: Schedule, day: number, zone: string): [from: number, to: number][] {
  if (schedule.days.length > 0 && !schedule.days.includes(weekdayOf(day))) return [];
  const isOut = schedule.blackouts.some(({ from, to }) => dayNumber(from) <= day && day <= dayNumber(to));
  if (isOut) return [];
  const hours = schedule.hours.length > 0 ? schedule.hours : [{ from: '00:00', to: '24:00' }];
  return hours.flatMap(({ from, to }): [from: number, to: number][] => {
    const [begin, end] = [minutesOf(from), minutesOf(to)];
    // A stretch that begins where the day ends is none.
    if (begin >= DAY_MS / MINUTE_MS) return [];
    const at = (minutes: number) => instantOf(day * DAY_MS + minutes * MINUTE_MS, zone);
    return [[at(begin), at(end > begin ? end : end + 24 * 60)]];
  });
}

/**
 * The next instant (epoch milliseconds, later than `atMs`) at which the state changes between open and not open, or
 * `null` when it stays as it is.
 */
export function nextChange(schedule: Schedule | null, atMs: number, zone: string): number | null {
  if (!schedule) return null;
  const isOpen = (ms: number) => scheduleState(schedule, ms, zone) === 'open';
  const now = isOpen(atMs);
  const start = schedule.start ? instantOf(wallOf(schedule.start), zone) : Number.NEGATIVE_INFINITY;
  const end = schedule.end ? instantOf(wallOf(schedule.end), zone) : Number.POSITIVE_INFINITY;
  if (atMs >= end) return null;
  const changeAmong = (edges: readonly number[]) =>
    edges
      .filter((edge) => edge > atMs && Number.isFinite(edge))
      .sort((a, b) => a - b)
      // Stretches may touch or overlap, so only an edge at which the state differs is a change.
      .find((edge) => isOpen(edge) !== now);
  // Of whole days only their blackouts and both ends are edges: no day need be gone through.
  if (schedule.days.length + schedule.hours.length === 0) {
    const edges = schedule.blackouts.flatMap(({ from, to }) => [dayNumber(from), dayNumber(to) + 1]);
    return changeAmong([start, end, ...edges.map((day) => instantOf(day * DAY_MS, zone))]) ?? null;
  }
  // Nothing changes before the start, however far off it is; after the end nothing does.
  const firstDay = dayOf(wallClock(Math.max(atMs, start), zone));
  let lastDay = Number.isFinite(end) ? dayOf(wallClock(end, zone)) : firstDay + HORIZON_DAYS;
  for (let day = firstDay; day <= lastDay; day++) {
    // Within a blackout nothing changes from its second day to its last; it may last for years.
    const out = schedule.blackouts.find(({ from, to }) => dayNumber(from) < day && day <= dayNumber(to));
    if (out && day > firstDay) {
      lastDay += dayNumber(out.to) - day;
      day = dayNumber(out.to);
      continue;
    }
    const [from, to] = [instantOf(day * DAY_MS, zone), instantOf((day + 1) * DAY_MS, zone)];
    const found = changeAmong(
      [
        start,
        end,
        ...stretches(schedule, day - 1, zone).flat(),
        ...stretches(schedule, day, zone).flat(),
      ].filter((edge) => edge >= from && edge < to),
    );
    if (found !== undefined) return found;
  }
  return null;
}

/** A stretch of time, milliseconds since 1970: its beginning is in it, its end is not. */
export type Interval = readonly [from: number, to: number];

/** When a schedule is open between two instants; stretches that touch are one. */
export function stretchesBetween(
  schedule: Schedule | null,
  fromMs: number,
  toMs: number,
  zone: string,
): readonly Interval[] {
  if (!schedule) return fromMs < toMs ? [[fromMs, toMs]] : [];
  const from = schedule.start ? Math.max(fromMs, instantOf(wallOf(schedule.start), zone)) : fromMs;
  const to = schedule.end ? Math.min(toMs, instantOf(wallOf(schedule.end), zone)) : toMs;
  if (from >= to) return [];
  const found: Interval[] = [];
  const lastDay = dayOf(wallClock(to, zone));
  // Yesterday's may reach over midnight.
  for (let day = dayOf(wallClock(from, zone)) - 1; day <= lastDay; day++)
    for (const [begin, end] of stretches(schedule, day, zone)) {
      const one: Interval = [Math.max(begin, from), Math.min(end, to)];
      if (one[0] < one[1]) found.push(one);
    }
  return joined(found);
}

/** Stretches in order, those that touch or overlap as one. */
export function joined(stretches: readonly Interval[]): readonly Interval[] {
  const all: Interval[] = [];
  for (const one of [...stretches].sort((a, b) => a[0] - b[0])) {
    const last = all.at(-1);
    if (last && one[0] <= last[1]) all[all.length - 1] = [last[0], Math.max(last[1], one[1])];
    else all.push(one);
  }
  return all;
}

/** What two lists of stretches, each in order and apart, have in common. */
export function shared(a: readonly Interval[], b: readonly Interval[]): readonly Interval[] {
  const both: Interval[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length; ) {
    const [one, other] = [a[i] as Interval, b[j] as Interval];
    const [from, to] = [Math.max(one[0], other[0]), Math.min(one[1], other[1])];
    if (from < to) both.push([from, to]);
    if (one[1] < other[1]) i++;
    else j++;
  }
  return both;
}
