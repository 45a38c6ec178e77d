const formatters = new Map<string, Intl.DateTimeFormat>();

function formatterOf(timeZone: string): Intl.DateTimeFormat {
  const known = formatters.get(timeZone);
  if (known) return known;
  // Swedish writes date and time as ISO 8601 does.
  const made = new Intl.DateTimeFormat('sv', { timeZone, dateStyle: 'short', timeStyle: 'medium' });
  formatters.set(timeZone, made);
  return made;
}

/**
 * What a clock on the wall shows in a zone, as if it were UTC: epoch milliseconds of that reading.
 *
 * @throws {RangeError} If the zone is no IANA name.
 */
export function wallClock(atMs: number, timeZone: string): number {
  const reading = formatterOf(timeZone).format(atMs).replace(' ', 'T');
  return Date.parse(`${reading}Z`) + (((atMs % 1000) + 1000) % 1000);
}

const DAY_MS = 86_400_000;

/**
 * The instant at which a clock in the zone shows this reading. In a gap the time before it is carried on, in an
 * overlap the first of the two is taken: "compatible" of Temporal, the rule of RFC 5545 (section 3.3.5).
 */
export function instantOf(wallMs: number, timeZone: string): number {
  // A day either side lies beyond any change of offset near this reading.
  const before = wallClock(wallMs - DAY_MS, timeZone) - (wallMs - DAY_MS);
  const after = wallClock(wallMs + DAY_MS, timeZone) - (wallMs + DAY_MS);
  const first = wallMs - before;
  if (wallClock(first, timeZone) === wallMs) return first;
  const second = wallMs - after;
  if (wallClock(second, timeZone) === wallMs) return second;
  return first;
}
