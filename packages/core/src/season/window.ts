import { type Interval, weekdayOf } from '../schedule/schedule.ts';
import { instantOf, wallClock } from '../schedule/zone.ts';
import { localDays } from './season.ts';

export const ZOOMS = ['day', 'week', 'month', 'quarter', 'year'] as const;
export type Zoom = (typeof ZOOMS)[number];

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
/** Weeks of a quarter: as many as any has. */
const QUARTER_WEEKS = 13;

const dayOf = (wallMs: number): number => Math.floor(wallMs / DAY_MS) * DAY_MS;
const mondayOf = (wallMs: number): number =>
  dayOf(wallMs) - (weekdayOf(Math.floor(wallMs / DAY_MS)) - 1) * DAY_MS;
const monthOf = (wallMs: number, more: number): number => {
  const date = new Date(wallMs);
  return Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + more, 1);
};

/** The stretch that is looked at around an instant, some steps later or earlier: by a zone's clocks, from midnight to midnight. */
export function seasonWindow(zoom: Zoom, atMs: number, zone: string, steps = 0): Interval {
  const wall = wallClock(atMs, zone);
  const between = (from: number, to: number): Interval => [instantOf(from, zone), instantOf(to, zone)];
  switch (zoom) {
    case 'day': {
      const from = dayOf(wall) + steps * DAY_MS;
      return between(from, from + DAY_MS);
    }
    case 'week':
    case 'quarter': {
      const days = zoom === 'week' ? 7 : 7 * QUARTER_WEEKS;
      const from = mondayOf(wall) + steps * days * DAY_MS;
      return between(from, from + days * DAY_MS);
    }
    case 'month':
      return between(monthOf(wall, steps), monthOf(wall, steps + 1));
    case 'year':
      return between(monthOf(wall, steps * 12), monthOf(wall, steps * 12 + 12));
  }
}

export interface Tick {
  readonly atMs: number;
  readonly words: string;
}

const words = (wallMs: number, how: Intl.DateTimeFormatOptions): string =>
  new Date(wallMs).toLocaleDateString('en-GB', { timeZone: 'UTC', ...how });

/** Where the line of a window is marked, and what is written there: hours, days, Mondays or months. */
export function ticksOf(zoom: Zoom, window: Interval, zone: string): readonly Tick[] {
  const wall = (ms: number) => wallClock(ms, zone);
  if (zoom === 'day') {
    const hours: Tick[] = [];
    // Every hour there is: a day on which clocks change has one less, or one of them twice.
    for (let atMs = window[0]; atMs < window[1]; atMs += HOUR_MS)
      hours.push({ atMs, words: new Date(wall(atMs)).toISOString().slice(11, 16) });
    return hours;
  }
  const days = localDays(window, zone).map(([begin]) => begin);
  if (zoom === 'week')
    return days.map((atMs) => ({
      atMs,
      words: `${words(wall(atMs), { weekday: 'short' })} ${words(wall(atMs), { day: 'numeric', month: 'short' })}`,
    }));
  if (zoom === 'month') return days.map((atMs) => ({ atMs, words: words(wall(atMs), { day: 'numeric' }) }));
  if (zoom === 'quarter')
    return days
      .filter((_, n) => n % 7 === 0)
      .map((atMs) => ({ atMs, words: words(wall(atMs), { day: 'numeric', month: 'short' }) }));
  return days
    .filter((atMs) => new Date(wall(atMs)).getUTCDate() === 1)
    .map((atMs) => ({ atMs, words: words(wall(atMs), { month: 'short' }) }));
}

/** What a window is called. */
export function windowWords(zoom: Zoom, [fromMs, toMs]: Interval, zone: string): string {
  const [from, to] = [wallClock(fromMs, zone), wallClock(toMs, zone) - DAY_MS];
  if (zoom === 'day')
    return `${words(from, { weekday: 'long' })} ${words(from, { day: 'numeric', month: 'long', year: 'numeric' })}`;
  if (zoom === 'month') return words(from, { month: 'long', year: 'numeric' });
  const how = { day: 'numeric', month: 'short', year: 'numeric' } as const;
  return `${words(from, how)} to ${words(to, how)}`;
}
