const FIRST_MS = 10_000;
const LONGEST_MS = 6 * 3_600_000;
const FACTOR = 3;
/** Given up this long after the first try. */
export const GIVE_UP_MS = 3 * 86_400_000;

export interface FailedTry {
  /** Tries so far, this one among them. */
  readonly tries: number;
  readonly begunMs: number;
  readonly nowMs: number;
  /** What the other side asked to wait (RFC 9110, 10.2.3), milliseconds; 0 when it did not. */
  readonly askedMs: number;
  /** From 0 up to 1, so that many that failed together do not come again together. */
  readonly random: number;
}

/**
 * When a delivery that failed is tried again: ten seconds later, then three times as long each time up to six hours,
 * a quarter more or less by chance, never before the other side wants it, and three days in all.
 *
 * @returns The instant in milliseconds; `null` when it is given up.
 */
export function nextTryMs({ tries, begunMs, nowMs, askedMs, random }: FailedTry): number | null {
  const waitMs = Math.min(LONGEST_MS, FIRST_MS * FACTOR ** (tries - 1)) * (0.75 + random / 2);
  const atMs = nowMs + Math.max(waitMs, askedMs);
  const lastMs = begunMs + GIVE_UP_MS;
  if (nowMs >= lastMs) return null;
  // One last try as the three days end, rather than none.
  return Math.min(atMs, lastMs);
}

/** Milliseconds to wait as a `Retry-After` field says: seconds, or an HTTP date. Source: RFC 9110, 10.2.3. */
export function retryAfterMs(field: string | null, nowMs: number): number {
  if (field === null) return 0;
  if (/^\d{1,9}$/.test(field.trim())) return Number(field) * 1000;
  const atMs = Date.parse(field);
  return Number.isNaN(atMs) ? 0 : Math.max(0, atMs - nowMs);
}
