import type { Assumptions, TrafficVisitor } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { campaign } from '../testing/begin-page-view.ts';
import { asVisit, lot, pathOf, staysOf, USUAL_ASSUMPTIONS, usualReactions } from './as-visit.ts';

const NOON_MS = Date.parse('2026-11-02T12:00Z');
type Recorded = TrafficVisitor['pages'][number];
const view = (change: Partial<Recorded> = {}): Recorded => ({
  path: '/a',
  atMs: NOON_MS,
  seconds: 30,
  depth: 50,
  ...change,
});
const visitor = (
  pages: readonly Recorded[],
  device: TrafficVisitor['device'] = 'desktop',
): TrafficVisitor => ({
  device,
  browser: 'chromium',
  system: 'windows',
  source: 'direct',
  referrer: '',
  session: 2,
  signedIn: null,
  basket: null,
  country: null,
  language: 'en',
  pages: [...pages],
});
const traffic = (...pages: Recorded[]) => ({
  days: 28,
  visitors: 1,
  isSample: false,
  list: [visitor(pages)],
});
const as = (of: TrafficVisitor, assumptions: Partial<Assumptions> = {}, known: Recorded[] = []) =>
  asVisit({
    visitor: of,
    nth: 0,
    stays: staysOf(traffic(...known)),
    assumptions: { leavesByMouse: 0, leavesByTouch: 0, closesAfterSeconds: 8, ...assumptions },
  });

describe('a recorded visitor as a visit', () => {
  it('is who they were, from when they came', () => {
    const { pages: _pages, ...about } = visitor([view()]);
    expect(as(visitor([view()]))).toEqual({
      visitor: { ...about, met: [] },
      beginsMs: NOON_MS,
      pages: [{ path: '/a', seconds: 30, depth: 50, afterMinutes: 0, happenings: [] }],
    });
  });
  it('has the end of an article in sight from nine tenths of a page on, just before it ends', () => {
    const happened = (depth: number, seconds = 30) =>
      as(visitor([view({ depth, seconds })])).pages[0]?.happenings;
    expect(happened(89)).toEqual([]);
    expect(happened(90)).toEqual([{ at: 29.8, what: 'articleEnd' }]);
    expect(happened(90, 0.1)).toEqual([{ at: 0, what: 'articleEnd' }]);
  });
  it('leaves by the window’s edge at a desk and on a tablet, by a scroll on a phone', () => {
    const left = (device: TrafficVisitor['device'], assumed: Partial<Assumptions>) =>
      as(visitor([view()], device), assumed).pages[0]?.happenings;
    const byMouse = [{ at: 29.8, what: 'leavesByMouse', certainty: 'certain' }];
    expect(left('desktop', { leavesByMouse: 1 })).toEqual(byMouse);
    expect(left('tablet', { leavesByMouse: 1 })).toEqual(byMouse);
    expect(left('mobile', { leavesByMouse: 1 })).toEqual([]);
    expect(left('mobile', { leavesByTouch: 1 })).toEqual([
      { at: 29.8, what: 'leavesByTouch', by: 'scrollUp' },
    ]);
    expect(left('desktop', { leavesByTouch: 1 })).toEqual([]);
  });
  it('has between two pages what was between them, and never less than nothing', () => {
    const after = (...pages: Recorded[]) => as(visitor(pages)).pages.map(({ afterMinutes }) => afterMinutes);
    expect(after(view(), view({ atMs: NOON_MS + 90_000 }))).toEqual([0, 1]);
    // Two at once: the later begins as the earlier ends, and the next counts from there.
    expect(after(view(), view({ atMs: NOON_MS + 10_000 }), view({ atMs: NOON_MS + 120_000 }))).toEqual([
      0, 0, 1,
    ]);
  });
  it('stays for an hour at most, for nothing is asked for longer', () => {
    expect(as(visitor([view({ seconds: 3600 })])).pages[0]?.seconds).toBe(3600);
    expect(as(visitor([view({ seconds: 9000 })])).pages[0]?.seconds).toBe(3600);
  });
  it('takes what was not told from another view of the same page, and keeps what was', () => {
    const untold = (change: Partial<Recorded>, known: Recorded[]) => {
      const [one] = as(visitor([view({ path: '/a?x=1#y', ...change })]), {}, known).pages;
      return [one?.seconds, one?.depth];
    };
    const known = [view({ seconds: 12, depth: 34 })];
    expect(untold({ seconds: null, depth: null }, known)).toEqual([12, 34]);
    expect(untold({ seconds: null, depth: 70 }, known)).toEqual([12, 70]);
    expect(untold({ seconds: 5, depth: null }, known)).toEqual([5, 34]);
    // A server’s log knows how long and never how far; of other pages it says nothing.
    expect(untold({ seconds: null, depth: null }, [view({ seconds: 12, depth: null })])).toEqual([12, 50]);
    expect(untold({ seconds: null, depth: null }, [view({ path: '/b' })])).toEqual([20, 50]);
  });
  it('knows five hundred stays of a page', () => {
    const stays = staysOf(traffic(...Array.from({ length: 600 }, (_, n) => view({ seconds: n }))));
    expect(stays('/a', 499).seconds).toBe(499);
    expect(stays('/a', 500).seconds).toBe(0);
  });
});

it('what is taken for granted is common practice, and whatever opens is closed', () => {
  expect(USUAL_ASSUMPTIONS).toEqual({ leavesByMouse: 0.5, leavesByTouch: 0.15, closesAfterSeconds: 8 });
  expect(usualReactions({ campaigns: [campaign('a')] }, USUAL_ASSUMPTIONS)).toEqual([
    { campaign: 'a', does: 'close', afterSeconds: 8 },
  ]);
});

it('lots are drawn evenly, each by itself, and the same in every release: a kept forecast was made with them', () => {
  const COUNT = 30_000;
  const drawn = Array.from({ length: COUNT }, (_, n) => lot(n % 300, Math.floor(n / 300), 1));
  expect(Math.min(...drawn)).toBeGreaterThanOrEqual(0);
  expect(Math.max(...drawn)).toBeLessThan(1);
  // Three standard errors of a share of a tenth.
  for (let tenth = 0; tenth < 10; tenth++)
    expect(Math.abs(drawn.filter((one) => Math.floor(one * 10) === tenth).length / COUNT - 0.1)).toBeLessThan(
      3 * Math.sqrt((0.1 * 0.9) / COUNT),
    );
  expect(new Set(drawn).size).toBe(COUNT);
  expect([lot(0, 0, 0), lot(1, 2, 3), lot(123_456, 49, 1)]).toEqual([
    0.28564889589324594, 0.4284686567261815, 0.1954963195603341,
  ]);
});
it('a page is its path', () => {
  expect(['/a', '/a?b#c', '/a#c?b', '/'].map(pathOf)).toEqual(['/a', '/a', '/a', '/']);
});
