import type { SiteLimits } from '@velarium/contract';
import { expect, it } from 'vitest';
import { decideSiteLimits, type ShownSoFar } from './site-limits.ts';

const NONE: SiteLimits = { perPageView: null, perSession: null, perDay: null, gapSeconds: 0 };
const NOTHING: ShownSoFar = { inPageView: 0, inSession: 0, shownAtMs: [] };
const HOUR_MS = 3_600_000;
const NOW_MS = 1_000 * HOUR_MS;
const ago = (hours: number) => NOW_MS - hours * HOUR_MS;

it.each<
  [what: string, limits: Partial<SiteLimits>, shown: Partial<ShownSoFar>, code?: string, retryAtMs?: number]
>([
  ['nothing limited', {}, { inPageView: 99, inSession: 99, shownAtMs: [NOW_MS] }],
  ['one short of a page view’s', { perPageView: 2 }, { inPageView: 1 }],
  ['a page view’s', { perPageView: 2 }, { inPageView: 2 }, 'limit.pageView'],
  ['one short of a session’s', { perSession: 2 }, { inSession: 1 }],
  ['a session’s', { perSession: 2 }, { inSession: 2 }, 'limit.session'],
  ['one short of a day’s', { perDay: 2 }, { shownAtMs: [ago(1)] }],
  // The earlier of the two that fill the day gives room when it is a day old, whatever order they are kept in.
  ['a day’s', { perDay: 2 }, { shownAtMs: [ago(1), ago(5)] }, 'limit.day', ago(5) + 24 * HOUR_MS],
  [
    'a day’s, in another order',
    { perDay: 2 },
    { shownAtMs: [ago(5), ago(1)] },
    'limit.day',
    ago(5) + 24 * HOUR_MS,
  ],
  [
    'a millisecond before a day is over',
    { perDay: 1 },
    { shownAtMs: [ago(24) + 1] },
    'limit.day',
    NOW_MS + 1,
  ],
  ['a day that is over', { perDay: 1 }, { shownAtMs: [ago(24)] }],
  ['a gap that is not over', { gapSeconds: 60 }, { shownAtMs: [NOW_MS - 59_999] }, 'limit.gap', NOW_MS + 1],
  ['a gap that is over', { gapSeconds: 60 }, { shownAtMs: [NOW_MS - 60_000] }],
  ['no gap, and a clock set back', {}, { shownAtMs: [NOW_MS + HOUR_MS] }],
  [
    'the page view before the rest',
    { perPageView: 0, perSession: 0, perDay: 1 },
    { shownAtMs: [NOW_MS] },
    'limit.pageView',
  ],
])('%s', (_what, limits, shown, code, retryAtMs) => {
  const objection = decideSiteLimits({ ...NONE, ...limits }, { ...NOTHING, ...shown }, NOW_MS);
  expect(objection?.code).toBe(code);
  if (retryAtMs !== undefined) expect(objection?.retryAtMs).toBe(retryAtMs);
});
