import type { Trigger } from '@velarium/contract';

/** What is known without a fact. */
export interface TriggerTimes {
  /** Visible milliseconds on this page, and on all pages of this session. */
  readonly pageVisibleMs: number;
  readonly sessionVisibleMs: number;
  /** Milliseconds without a sign of life while visible; 0 when hidden. */
  readonly stillMs: number;
  readonly counts: {
    readonly viewsInSession: number;
    readonly viewsOfPage: number;
    readonly sessions: number;
  };
}

/**
 * Milliseconds until this trigger happens by itself: 0 when it has, `Infinity` when only a fact can make it.
 */
export function remainingMs(trigger: Trigger, times: TriggerTimes): number {
  switch (trigger.kind) {
    case 'time':
      return Math.max(0, trigger.seconds * 1000 - times.pageVisibleMs);
    case 'sessionTime':
      return Math.max(0, trigger.seconds * 1000 - times.sessionVisibleMs);
    case 'inactivity':
      return Math.max(0, trigger.seconds * 1000 - times.stillMs);
    case 'count':
      return times.counts[trigger.of] >= trigger.atLeast ? 0 : Number.POSITIVE_INFINITY;
    default:
      return Number.POSITIVE_INFINITY;
  }
}
