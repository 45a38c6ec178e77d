import type { SiteLimits } from '@velarium/contract';

/** What has been shown to one visitor by all of the site's campaigns. */
export interface ShownSoFar {
  readonly inPageView: number;
  readonly inSession: number;
  /** Showings of the last 24 hours, epoch milliseconds, in any order. */
  readonly shownAtMs: readonly number[];
}

const DAY_MS = 86_400_000;

export type SiteLimitDecision =
  | { readonly isAllowed: true }
  | {
      readonly isAllowed: false;
      readonly code: 'limit.pageView' | 'limit.session' | 'limit.day' | 'limit.gap';
      /** First instant at which time alone lifts it, or `null`. */
      readonly retryAtMs: number | null;
    };

/** Whether the site's own limits leave room for one more message, whichever campaign it is of. */
export function decideSiteLimits(limits: SiteLimits, shown: ShownSoFar, nowMs: number): SiteLimitDecision {
  const refuse = (
    code: 'limit.pageView' | 'limit.session' | 'limit.day' | 'limit.gap',
    retryAtMs: number | null,
  ) => ({ isAllowed: false, code, retryAtMs }) as const;
  if (limits.perPageView !== null && shown.inPageView >= limits.perPageView)
    return refuse('limit.pageView', null);
  if (limits.perSession !== null && shown.inSession >= limits.perSession)
    return refuse('limit.session', null);
  const today = shown.shownAtMs.filter((atMs) => nowMs - atMs < DAY_MS).sort((a, b) => b - a);
  const blocking = limits.perDay === null ? undefined : today[limits.perDay - 1];
  if (blocking !== undefined) return refuse('limit.day', blocking + DAY_MS);
  const gapOverMs = (today[0] ?? Number.NEGATIVE_INFINITY) + limits.gapSeconds * 1000;
  return nowMs < gapOverMs ? refuse('limit.gap', gapOverMs) : { isAllowed: true };
}
