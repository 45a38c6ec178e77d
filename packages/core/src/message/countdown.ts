import type { CountdownEnd, CountdownUnit } from '@velarium/contract';
import { instantOf, wallClock } from '../schedule/zone.ts';

const UNIT_MS: Readonly<Record<CountdownUnit, number>> = {
  days: 86_400_000,
  hours: 3_600_000,
  minutes: 60_000,
  seconds: 1000,
};
const DAY_MS = UNIT_MS.days;

export interface CountdownFacts {
  readonly nowMs: number;
  /** When the visitor first saw the message, epoch milliseconds. */
  readonly firstSeenMs: number;
  /** The site's zone, where the countdown names none. */
  readonly timeZone: string;
}

/** When a countdown is over, epoch milliseconds. A daily one ends at the next such reading of the zone's clock. */
export function countdownEnd(until: CountdownEnd, { nowMs, firstSeenMs, timeZone }: CountdownFacts): number {
  if (until.kind === 'visitor') return firstSeenMs + until.minutes * 60_000;
  const zone = until.zone || timeZone;
  if (until.kind === 'date') return instantOf(Date.parse(`${until.at}:00Z`), zone);
  const [hours = 0, minutes = 0] = until.at.split(':').map(Number);
  const wallNow = wallClock(nowMs, zone);
  const today = wallNow - (wallNow % DAY_MS) + hours * UNIT_MS.hours + minutes * UNIT_MS.minutes;
  const end = instantOf(today, zone);
  return end > nowMs ? end : instantOf(today + DAY_MS, zone);
}

/**
 * What is left in the units shown, the largest first; the smallest is rounded up, so that it reads 1 until it is
 * over. Never below nought.
 */
export function countdownParts(
  leftMs: number,
  units: readonly CountdownUnit[],
): { readonly unit: CountdownUnit; readonly count: number }[] {
  const shown = (Object.keys(UNIT_MS) as CountdownUnit[]).filter((unit) => units.includes(unit));
  const smallest = shown.at(-1);
  if (!smallest) return [];
  let left = Math.ceil(Math.max(0, leftMs) / UNIT_MS[smallest]) * UNIT_MS[smallest];
  return shown.map((unit) => {
    const count = Math.floor(left / UNIT_MS[unit]);
    left -= count * UNIT_MS[unit];
    return { unit, count };
  });
}
