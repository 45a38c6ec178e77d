import type { SiteLimits } from '@velarium/contract';

/** What has been shown to one visitor by all of the site's campaigns. */
export interface ShownSoFar {
  readonly inPageView: number;
  readonly inSession: number;
  /** Showings of the last 24 hours, epoch milliseconds, in any order. */
  readonly shownAtMs: readonly number[];
}

const DAY_MS = 86_400_000;

/** What the site's own limits have against one message more. */
export interface SiteLimitObjection {
  readonly code: 'limit.pageView' | 'limit.session' | 'limit.day' | 'limit.gap';
  /** First instant at which time alone lifts it, or `null`. */
  readonly retryAtMs: number | null;
}

/** What speaks against one more message, whichever campaign it is of; nothing when there is room for it. */
export function decideSiteLimits(
  { perPageView, perSession, perDay, gapSeconds }: SiteLimits,
  shown: ShownSoFar,
  nowMs: number,
): SiteLimitObjection | undefined {
  if (perPageView !== null && shown.inPageView >= perPageView)
    return { code: 'limit.pageView', retryAtMs: null };
  if (perSession !== null && shown.inSession >= perSession) return { code: 'limit.session', retryAtMs: null };
  const latest = [...shown.shownAtMs].sort((a, b) => b - a);
  const blocking = latest[(perDay ?? Number.NaN) - 1];
  if (blocking !== undefined && nowMs - blocking < DAY_MS)
    return { code: 'limit.day', retryAtMs: blocking + DAY_MS };
  const gapOverMs = (latest[0] ?? Number.NEGATIVE_INFINITY) + gapSeconds * 1000;
  // Without a gap there is none, also where a clock was set back.
  return gapSeconds && nowMs < gapOverMs ? { code: 'limit.gap', retryAtMs: gapOverMs } : undefined;
}
