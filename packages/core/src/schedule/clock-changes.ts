import { wallClock } from './zone.ts';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;

export interface ClockChange {
  /** The instant of the change, epoch milliseconds, to the hour. */
  readonly atMs: number;
  /** Minutes the clocks move; forward is positive. */
  readonly minutes: number;
}

const offsetMs = (atMs: number, zone: string) => wallClock(atMs, zone) - atMs;

/** The changes of a zone's clocks between two instants. Source: IANA time zone database, by the runtime's `Intl`. */
export function clockChanges(fromMs: number, toMs: number, zone: string): ClockChange[] {
  const found: ClockChange[] = [];
  let before = offsetMs(fromMs, zone);
  for (let day = fromMs; day < toMs; day += DAY_MS) {
    const after = offsetMs(day + DAY_MS, zone);
    if (after === before) continue;
    let hour = day;
    while (offsetMs(hour + HOUR_MS, zone) === before) hour += HOUR_MS;
    // Changes fall on whole hours of universal time; a zone that differs by half an hour is right to the hour.
    const atMs = Math.ceil((hour + 1) / HOUR_MS) * HOUR_MS;
    found.push({ atMs, minutes: Math.round((after - before) / 60_000) });
    before = after;
  }
  return found.filter(({ atMs }) => atMs < toMs);
}
