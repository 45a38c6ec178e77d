import type { Moment } from '@velarium/contract';
import { remainingMs, type TriggerTimes } from './times.ts';
import type { Fact, isMetBy } from './trigger.ts';

/** One campaign's triggers on one page view: which have happened, and what is still missing. */
export interface MomentState {
  /** Takes a fact in; `times` are those of the same instant. */
  feed(fact: Fact, times: TriggerTimes): void;
  /** Something ends that may have happened by itself until now: stillness, or being in sight. */
  latch(times: TriggerTimes): void;
  /** Milliseconds until the moment comes by time alone; 0 when it is here, `Infinity` when a fact is needed. Asking changes nothing. */
  remaining(times: TriggerTimes): number;
  /** The same of each trigger by itself. */
  eachLeft(times: TriggerTimes): number[];
  /** Begins anew after an opening, for a campaign that may open again. */
  rearm(times: TriggerTimes): void;
}

/** `meets` is missing where no trigger needs a fact. */
export function createMomentState(
  moment: Moment,
  campaign: string,
  meets: typeof isMetBy | undefined,
): MomentState {
  let happened = moment.triggers.map(() => false);
  let notBeforeMs = moment.notBeforeSeconds * 1000;
  /** Where the clocks stood when it was armed anew; they count from there. */
  let base: TriggerTimes | undefined;

  /** Times as this arming sees them. Before the first opening the session's time counts from its beginning. */
  const since = (times: TriggerTimes): TriggerTimes =>
    base
      ? {
          ...times,
          pageVisibleMs: times.pageVisibleMs - base.pageVisibleMs,
          sessionVisibleMs: times.sessionVisibleMs - base.sessionVisibleMs,
          stillMs: Math.min(times.stillMs, times.pageVisibleMs - base.pageVisibleMs),
        }
      : times;

  const left = (times: TriggerTimes): number[] =>
    moment.triggers.map((trigger, n) => {
      if (happened[n]) return 0;
      // A count is a state: it cannot happen again within one page view.
      return base && trigger.kind === 'count' ? Number.POSITIVE_INFINITY : remainingMs(trigger, times);
    });
  const latch = (times: TriggerTimes) => {
    happened = left(times).map((ms) => ms === 0);
  };

  return {
    latch: (now) => latch(since(now)),
    feed(fact, now) {
      const times = since(now);
      latch(times);
      moment.triggers.forEach((trigger, n) => {
        if (meets?.(trigger, fact, { campaign, pageVisibleMs: times.pageVisibleMs, notBeforeMs }))
          happened[n] = true;
      });
    },
    remaining(now) {
      const times = since(now);
      const all = left(times);
      const ms = moment.join === 'any' ? Math.min(...all) : Math.max(...all);
      return Math.max(ms, notBeforeMs - times.pageVisibleMs);
    },
    eachLeft: (now) => left(since(now)),
    rearm(now) {
      happened = moment.triggers.map(() => false);
      base = now;
      notBeforeMs = (moment.againAfterSeconds ?? 0) * 1000;
    },
  };
}
