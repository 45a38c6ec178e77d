import type { Cap, Pause } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Memory,
  NO_ARRIVAL,
  newMemory,
  rememberAnswered,
  rememberClosed,
  rememberConverted,
  rememberRefused,
  rememberShown,
} from '../visit/memory.ts';
import { decideCaps } from './caps.ts';
import { spanMs } from './span.ts';

const DAY_MS = 86_400_000;
const nowMs = Date.UTC(2026, 10, 25, 12);
const ID = 'c';
const session = 's1';

const memoryWith = (shownAtMs: readonly number[]): Memory =>
  shownAtMs.reduce<Memory>(
    (memory, atMs) => rememberShown(memory, { id: ID, epoch: 0 }, atMs),
    newMemory({ visitor: () => 'v', session: () => session }, nowMs, NO_ARRIVAL),
  );
const decide = (
  rule: {
    caps?: Cap[];
    afterClose?: Pause;
    afterNo?: Pause;
    epoch?: number;
    afterConversion?: Pause;
    stopAfterUnanswered?: number;
  },
  memory: Memory,
  at = { nowMs, session },
) => {
  const objection = decideCaps(
    {
      caps: [],
      afterClose: 'none',
      afterNo: 'none',
      afterConversion: 'none',
      stopAfterUnanswered: null,
      epoch: 0,
      ...rule,
    },
    memory.campaigns[ID],
    at,
  );
  return objection ? { isAllowed: false, ...objection } : { isAllowed: true, retryAtMs: null };
};
const ago = (days: number) => nowMs - days * DAY_MS;
const refused = (code: string, retryAtMs: number | null) => ({ isAllowed: false, code, retryAtMs });
const days = (max: number, count: number): Cap => ({ max, per: { count, unit: 'days' } });

describe('frequency caps', () => {
  it.each<[rule: string, caps: Cap[], shownAtMs: number[], expected: unknown]>([
    ['without a cap it may always show', [], [ago(0)], { isAllowed: true, retryAtMs: null }],
    ['once per visitor, never seen', [{ max: 1, per: 'ever' }], [], { isAllowed: true, retryAtMs: null }],
    [
      'once per visitor, seen once: time never lifts it',
      [{ max: 1, per: 'ever' }],
      [ago(400)],
      refused('cap.showings', null),
    ],
    [
      'twice per visitor, seen once',
      [{ max: 2, per: 'ever' }],
      [ago(1)],
      { isAllowed: true, retryAtMs: null },
    ],
    ['once per session, seen in it', [{ max: 1, per: 'session' }], [ago(0)], refused('cap.showings', null)],
    [
      'once every 7 days, seen 6 days ago',
      [days(1, 7)],
      [ago(6)],
      refused('cap.showings', ago(6) + 7 * DAY_MS),
    ],
    [
      'once every 7 days, seen exactly 7 days ago',
      [days(1, 7)],
      [ago(7)],
      { isAllowed: true, retryAtMs: null },
    ],
    [
      'twice every 7 days reopens when the older leaves',
      [days(2, 7)],
      [ago(6), ago(1)],
      refused('cap.showings', ago(6) + 7 * DAY_MS),
    ],
    [
      'a showing from the future counts',
      [days(1, 7)],
      [nowMs + DAY_MS],
      refused('cap.showings', nowMs + 8 * DAY_MS),
    ],
    [
      'of two caps the later reopening decides',
      [days(1, 2), days(1, 7)],
      [ago(1)],
      refused('cap.showings', ago(1) + 7 * DAY_MS),
    ],
    [
      'one cap that never lifts decides for good',
      [days(1, 2), { max: 1, per: 'ever' }],
      [ago(1)],
      refused('cap.showings', null),
    ],
  ])('%s', (_rule, caps, shownAtMs, expected) => {
    expect(decide({ caps }, memoryWith(shownAtMs))).toEqual(expected);
  });

  it('a session’s cap does not reach into the next session', () => {
    const caps: Cap[] = [{ max: 1, per: 'session' }];
    expect(decide({ caps }, memoryWith([ago(0)]), { nowMs, session: 's2' })).toEqual({
      isAllowed: true,
      retryAtMs: null,
    });
  });

  it('a month is 30 days', () => {
    expect(spanMs({ count: 1, unit: 'months' })).toBe(30 * DAY_MS);
  });
});

describe('showings without an answer', () => {
  const shown = memoryWith([ago(3), ago(2), ago(1)]);
  it.each([
    ['three of three', shown, false],
    ['a close is no answer', rememberClosed(shown, ID, ago(1)), false],
    ['a click begins anew', rememberAnswered(shown, ID), true],
    ['a conversion begins anew', rememberConverted(shown, ID, ago(1)), true],
  ])('%s', (_rule, memory, isAllowed) => {
    expect(decide({ stopAfterUnanswered: 3 }, memory)).toEqual(
      isAllowed ? { isAllowed, retryAtMs: null } : refused('cap.unanswered', null),
    );
    expect(decide({ stopAfterUnanswered: 4 }, memory)).toEqual({ isAllowed: true, retryAtMs: null });
  });
});

describe('pauses', () => {
  it.each<[rule: string, pause: Pause, expected: unknown]>([
    ['none: it may come again', 'none', { isAllowed: true, retryAtMs: null }],
    ['this session', 'session', refused('cap.closed', null)],
    ['for ever', 'ever', refused('cap.closed', null)],
    [
      'for a span, measured from the close',
      { count: 3, unit: 'hours' },
      refused('cap.closed', ago(0) + 3 * 3_600_000),
    ],
  ])('after a close, %s', (_rule, afterClose, expected) => {
    expect(decide({ afterClose }, rememberClosed(memoryWith([]), ID, ago(0)))).toEqual(expected);
  });

  it('converting speaks before closing, and closing before the cap', () => {
    const caps: Cap[] = [{ max: 1, per: 'ever' }];
    const closed = rememberClosed(memoryWith([ago(1)]), ID, ago(1));
    expect(decide({ caps, afterClose: 'ever', afterConversion: 'ever' }, closed)).toMatchObject({
      code: 'cap.closed',
    });
    const converted = rememberConverted(closed, ID, ago(1));
    expect(decide({ caps, afterClose: 'ever', afterConversion: 'ever' }, converted)).toMatchObject({
      code: 'cap.converted',
    });
  });
});

it('in no rolling window are there more showings than the cap allows', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 4 }),
      fc.integer({ min: 1, max: 30 }),
      fc.array(fc.integer({ min: 0, max: 40 * DAY_MS }), { maxLength: 60 }),
      (max, count, offsets) => {
        const caps = [days(max, count)];
        let memory = memoryWith([]);
        const shown: number[] = [];
        for (const atMs of [...offsets].sort((a, b) => a - b)) {
          if (!decide({ caps }, memory, { nowMs: atMs, session }).isAllowed) continue;
          shown.push(atMs);
          memory = rememberShown(memory, { id: ID, epoch: 0 }, atMs);
        }
        for (const end of shown) {
          expect(
            shown.filter((atMs) => atMs <= end && end - atMs < count * DAY_MS).length,
          ).toBeLessThanOrEqual(max);
        }
      },
    ),
  );
});

it('says exactly when it reopens: refused one millisecond before, allowed then', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 3 }),
      fc.array(fc.integer({ min: 0, max: 6 * DAY_MS }), { minLength: 1, maxLength: 8 }),
      (max, offsets) => {
        const caps = [days(max, 7)];
        const memory = memoryWith(offsets);
        const at = 6 * DAY_MS;
        const decision = decide({ caps }, memory, { nowMs: at, session });
        if (decision.isAllowed || decision.retryAtMs === null) return;
        expect(decide({ caps }, memory, { nowMs: decision.retryAtMs - 1, session }).isAllowed).toBe(false);
        expect(decide({ caps }, memory, { nowMs: decision.retryAtMs, session }).isAllowed).toBe(true);
      },
    ),
  );
});

describe('a pause after a no', () => {
  const refusedMemory = rememberRefused(memoryWith([ago(1)]), ID, nowMs);
  it.each<[pause: Pause, laterDays: number, expected: unknown]>([
    ['none', 0, { isAllowed: true, retryAtMs: null }],
    ['session', 0, refused('cap.refused', null)],
    ['ever', 900, refused('cap.refused', null)],
    [{ count: 3, unit: 'hours' }, 0.124, refused('cap.refused', nowMs + 3 * 3_600_000)],
    [{ count: 3, unit: 'hours' }, 0.125, { isAllowed: true, retryAtMs: null }],
  ])('%j, %d days later', (afterNo, laterDays, expected) => {
    expect(decide({ afterNo }, refusedMemory, { nowMs: nowMs + laterDays * DAY_MS, session })).toEqual(
      expected,
    );
  });

  it('a close is no no', () => {
    expect(decide({ afterNo: 'ever' }, rememberClosed(memoryWith([ago(1)]), ID, nowMs))).toEqual({
      isAllowed: true,
      retryAtMs: null,
    });
  });
});

it('a cap that is raised looks back on what was shown before it was', () => {
  // Shown twice in the week when once was allowed; three in a week leave room for one more, not for three.
  const memory = memoryWith([ago(6), ago(1)]);
  expect(decide({ caps: [days(3, 7)] }, memory).isAllowed).toBe(true);
  const again = rememberShown(memory, { id: ID, epoch: 0 }, nowMs);
  expect(decide({ caps: [days(3, 7)] }, again).isAllowed).toBe(false);
});

describe('counting afresh', () => {
  const once: Cap[] = [{ max: 1, per: 'ever' }];
  const used = rememberClosed(memoryWith([ago(2)]), ID, ago(2));

  it('visitors who have used up the old cap can see it again, and then not once more', () => {
    expect(decide({ caps: once }, used)).toEqual(refused('cap.showings', null));
    expect(decide({ caps: once, epoch: 1 }, used)).toEqual({ isAllowed: true, retryAtMs: null });
    const again = rememberShown(used, { id: ID, epoch: 1 }, nowMs);
    expect(decide({ caps: once, epoch: 1 }, again)).toEqual(refused('cap.showings', null));
  });

  it('pauses begin afresh too, also after the first new showing', () => {
    const paused = { afterClose: 'ever', epoch: 1 } as const;
    expect(decide(paused, used)).toEqual({ isAllowed: true, retryAtMs: null });
    const again = rememberShown(used, { id: ID, epoch: 1 }, nowMs);
    expect(decide(paused, again)).toEqual({ isAllowed: true, retryAtMs: null });
    expect(decide(paused, rememberClosed(again, ID, nowMs))).toEqual(refused('cap.closed', null));
  });

  it('a conversion still means never again, and that it was closed before stays known', () => {
    const converted = rememberConverted(used, ID, ago(1));
    expect(decide({ afterConversion: 'ever', epoch: 1 }, converted)).toEqual(refused('cap.converted', null));
    const again = rememberShown(converted, { id: ID, epoch: 1 }, nowMs);
    expect(decide({ afterConversion: 'ever', epoch: 1 }, again)).toEqual(refused('cap.converted', null));
    expect(again.campaigns[ID]?.closedAtMs).toBe(ago(2));
  });
});

it('caps are never exceeded, however the turns of two tabs and the clock fall', () => {
  const turn = fc.record({
    tab: fc.constantFrom(0, 1),
    afterMs: fc.integer({ min: 0, max: 2 * DAY_MS }),
    isNewSession: fc.boolean(),
  });
  const cap = fc.record<Cap>({
    max: fc.integer({ min: 1, max: 3 }),
    per: fc.oneof(
      fc.constantFrom('session' as const, 'ever' as const),
      fc.record({
        count: fc.integer({ min: 1, max: 4 }),
        unit: fc.constantFrom('hours' as const, 'days' as const),
      }),
    ),
  });
  fc.assert(
    fc.property(
      fc.array(cap, { minLength: 1, maxLength: 3 }),
      fc.array(turn, { maxLength: 40 }),
      (caps, turns) => {
        let stored = newMemory({ visitor: () => 'v', session: () => 's0' }, nowMs, NO_ARRIVAL);
        let atMs = nowMs;
        let sessions = 0;
        const shown: { atMs: number; session: string }[] = [];
        /** What each tab believed when it began to load its message; it must not act on that. */
        const stale = [stored, stored];
        for (const { tab, afterMs, isNewSession } of turns) {
          atMs += afterMs;
          if (isNewSession) stored = { ...stored, session: { ...stored.session, id: `s${++sessions}` } };
          const now = { nowMs: atMs, session: stored.session.id };
          const wants = decide({ caps }, stale[tab] as Memory, now).isAllowed;
          // Under the lock the tab reads what is stored now and asks again, as the tag does.
          if (wants && decide({ caps }, stored, now).isAllowed) {
            stored = rememberShown(stored, { id: ID, epoch: 0 }, atMs);
            shown.push({ atMs, session: now.session });
          }
          stale[tab] = stored;
        }
        for (const { max, per } of caps) {
          for (const [n, last] of shown.entries()) {
            const counted = shown.slice(0, n + 1).filter((one) => {
              if (per === 'ever') return true;
              if (per === 'session') return one.session === last.session;
              return last.atMs - one.atMs < spanMs(per);
            });
            expect(counted.length).toBeLessThanOrEqual(max);
          }
        }
      },
    ),
    { numRuns: 2000 },
  );
});
