import type { Span } from '@velarium/contract';

const HOUR_MS = 3_600_000;
const UNIT_MS = {
  minutes: 60_000,
  hours: HOUR_MS,
  days: 24 * HOUR_MS,
  weeks: 7 * 24 * HOUR_MS,
  /** A month is 30 days: a rolling window has no calendar. */
  months: 30 * 24 * HOUR_MS,
} as const;

/** The length of a span in milliseconds. */
export function spanMs(span: Span): number {
  return span.count * UNIT_MS[span.unit];
}
