import type { Moment, Trigger } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { createMomentState } from './moment.ts';
import type { TriggerTimes } from './times.ts';

const momentOf = (trigger: Trigger): Moment => ({
  join: 'any',
  triggers: [trigger],
  notBeforeSeconds: 0,
  againAfterSeconds: 5,
});
const at = (page: number, session: number, still = 0): TriggerTimes => ({
  pageVisibleMs: page * 1000,
  sessionVisibleMs: session * 1000,
  stillMs: still * 1000,
  counts: { viewsInSession: 3, viewsOfPage: 1, sessions: 1 },
});
const stateOf = (trigger: Trigger) => createMomentState(momentOf(trigger), 'this', undefined);

describe('once it may come again, every clock counts from where it was armed anew', () => {
  it.each<[what: string, trigger: Trigger, first: TriggerTimes, later: TriggerTimes, leftMs: number]>([
    ['time on the page', { kind: 'time', seconds: 20 }, at(20, 80), at(32, 92), 8000],
    ['time in the session', { kind: 'sessionTime', seconds: 80 }, at(20, 80), at(32, 92), 68_000],
    ['stillness', { kind: 'inactivity', seconds: 20 }, at(40, 40, 20), at(52, 52, 32), 8000],
    // A state of the session, which cannot come about again while one looks.
    [
      'a count',
      { kind: 'count', of: 'viewsInSession', atLeast: 2 },
      at(1, 1),
      at(50, 50),
      Number.POSITIVE_INFINITY,
    ],
  ])('%s', (_what, trigger, first, later, leftMs) => {
    const state = stateOf(trigger);
    expect(state.remaining(first)).toBe(0);
    state.rearm(first);
    expect(state.remaining(later)).toBe(leftMs);
    expect(state.eachLeft(later)).toEqual([leftMs]);
  });

  it('and not before the pause is over', () => {
    const state = stateOf({ kind: 'time', seconds: 2 });
    state.rearm(at(10, 10));
    expect(state.remaining(at(12, 12))).toBe(3000);
    expect(state.remaining(at(15, 15))).toBe(0);
  });
});
