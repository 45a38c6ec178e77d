import type { Device, SiteLimits } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { cellsOf } from '../arbitration/cells.ts';
import { PLAIN_STYLE } from '../message/plain.ts';
import {
  at,
  atOnce,
  begin,
  type Change,
  campaign,
  memory,
  on,
  type Placing,
  START_MS,
  time,
} from '../testing/begin-page-view.ts';
import { type Verdict, verdictSentence } from '../verdict/verdict.ts';
import { type Memory, rememberClosed, rememberConverted, rememberRefused, rememberShown } from './memory.ts';

describe('several at once', () => {
  it('one interrupting message at a time; the next follows when it is gone', () => {
    const view = begin([campaign('a', atOnce), campaign('b', atOnce)]);
    view.onOpened('a');
    expect(view.opens(1)).toBeUndefined();
    expect(view.codes(1)).toEqual(['shown', 'waiting:floor']);
    view.gone('a', 2);
    expect(view.opens(2)).toBe('b');
  });

  it('one that gives way has given way for the page view', () => {
    const view = begin([campaign('a', atOnce), campaign('b', { ...atOnce, whenBusy: 'yield' })]);
    view.onOpened('a');
    view.opens(1);
    expect(view.codes(1)).toEqual(['shown', 'blocked:yielded']);
    view.gone('a', 2);
    expect(view.opens(3)).toBeUndefined();
  });

  it('the one triggered earlier goes first', () => {
    const view = begin([campaign('older', on(time(9))), campaign('younger', on(time(4)))]);
    expect(view.opens(4)).toBe('younger');
    expect(view.opens(9)).toBe('younger');
  });

  it.each<[what: string, a: Placing, b: Placing, device: Device, both: boolean]>([
    [
      'two corners',
      { format: 'flyin', anchor: 'bottom-end' },
      { format: 'flyin', anchor: 'bottom-start' },
      'desktop',
      true,
    ],
    [
      'two corners of a phone',
      { format: 'flyin', anchor: 'bottom-end' },
      { format: 'flyin', anchor: 'bottom-start' },
      'mobile',
      false,
    ],
    [
      'a bar at the top and a corner below',
      { format: 'bar', anchor: 'top' },
      { format: 'flyin', anchor: 'bottom-end' },
      'mobile',
      true,
    ],
    [
      'a bar and a corner under it',
      { format: 'bar', anchor: 'top' },
      { format: 'popup', anchor: 'top-end' },
      'desktop',
      false,
    ],
    [
      'a panel and a box in its column',
      { format: 'slidein', anchor: 'end' },
      { format: 'popup', anchor: 'end' },
      'desktop',
      false,
    ],
    [
      'a corner and a modal',
      { format: 'flyin', anchor: 'bottom-end' },
      { format: 'modal', anchor: 'center' },
      'desktop',
      false,
    ],
    [
      'two corners that are one on a tablet',
      { format: 'flyin', anchor: 'bottom-end' },
      { format: 'flyin', anchor: 'bottom-start', tablet: 'bottom-end' },
      'tablet',
      false,
    ],
  ])('boxes never lie on one another: %s', (_what, a, b, device, both) => {
    const placed = (id: string, { format, anchor, tablet }: Placing) => {
      const style = { ...PLAIN_STYLE, tablet: tablet ? { anchor: tablet } : {} };
      return campaign(id, { ...atOnce, cells: cellsOf([{ format, anchor, style }]) });
    };
    const view = begin([placed('a', a), placed('b', b)], { device });
    view.onOpened('a');
    expect(view.opens(1)).toBe(both ? 'b' : undefined);
  });
});

describe('the site’s own limits', () => {
  const shown = rememberShown(memory, { id: 'x', epoch: 0 }, START_MS);
  it.each<[what: string, limits: Partial<SiteLimits>, seconds: number, code: Verdict['code']]>([
    ['none', {}, 1, 'ready'],
    ['per session', { perSession: 1 }, 1, 'blocked:limit.session'],
    ['per day', { perDay: 1 }, 1, 'blocked:limit.day'],
    ['a gap that is not over', { gapSeconds: 60 }, 59, 'blocked:limit.gap'],
    ['a gap that is', { gapSeconds: 60 }, 60, 'ready'],
  ])('%s', (_what, limits, seconds, code) => {
    expect(begin([campaign('a', atOnce)], { limits }).codes(seconds, shown)).toEqual([code]);
  });

  it('per page view', () => {
    const view = begin([campaign('a', atOnce), campaign('b', atOnce)], { limits: { perPageView: 1 } });
    view.onOpened('a');
    view.gone('a', 1);
    expect(view.codes(2)[1]).toBe('blocked:limit.pageView');
  });

  it('wakes up when its schedule opens', () => {
    const schedule = {
      zone: 'site' as const,
      start: '2026-11-25T20:01',
      end: null,
      days: [],
      hours: [],
      blackouts: [],
    };
    const view = begin([campaign('a', { ...atOnce, schedule })]);
    expect(view.next(memory, at(20)).near[0]?.inMs).toBe(40_000);
    expect(view.opens(60)).toBe('a');
  });

  it('wakes up when the gap is over', () => {
    const view = begin([campaign('a', atOnce)], { limits: { gapSeconds: 60 } });
    expect(view.next(shown, at(50)).near[0]?.inMs).toBe(10_000);
  });
});

describe('gates are asked in a fixed order', () => {
  const converted = rememberConverted(rememberShown(memory, { id: 'a', epoch: 0 }, START_MS), 'a', START_MS);
  const shown = rememberShown(memory, { id: 'a', epoch: 0 }, START_MS);
  const schedule = {
    zone: 'site' as const,
    start: '2026-12-01T00:00',
    end: null,
    days: [],
    hours: [],
    blackouts: [],
  };
  const audience = {
    match: 'all' as const,
    groups: [
      {
        not: false,
        match: 'all' as const,
        items: [{ not: false, condition: { kind: 'signedIn' as const, is: true } }],
      },
    ],
  };
  const all: Change = {
    devices: 4,
    audience,
    afterConversion: 'ever',
    caps: [{ max: 1, per: 'ever' }],
    moment: { triggers: [time(10)] },
  };
  const open = { ...all, devices: 7, audience: null };
  it.each<[gate: string, change: Change, seen: Memory, code: Verdict['code']]>([
    ['schedule', { ...all, schedule, include: [] }, converted, 'blocked:schedule.before'],
    ['nowhere', { ...all, include: [] }, converted, 'blocked:page.nowhere'],
    ['another page', { ...all, include: [], includeKeys: ['/b'] }, converted, 'blocked:page.unmatched'],
    ['a page taken out', { ...all, excludeKeys: ['/a'] }, converted, 'blocked:page.excluded'],
    ['device', all, converted, 'blocked:device'],
    ['audience', { ...all, devices: 7 }, converted, 'blocked:audience'],
    ['conversion', open, converted, 'blocked:cap.converted'],
    ['unanswered', { ...open, stopAfterUnanswered: 1 }, shown, 'blocked:cap.unanswered'],
    ['cap', open, shown, 'blocked:cap.showings'],
    ['trigger', open, memory, 'waiting:trigger'],
    ['nothing left', { ...open, ...atOnce }, memory, 'ready'],
  ])('%s', (_gate, change, seen, code) => {
    expect(begin([campaign('a', change)]).codes(1, seen)).toEqual([code]);
  });

  it('from the visitor’s record to the holdout each objects before all that come after it', () => {
    const everything: Change = {
      isForgetful: false,
      afterConversion: 'ever',
      afterNo: 'ever',
      afterClose: 'ever',
      stopAfterUnanswered: 1,
      caps: [{ max: 1, per: 'ever' }],
      moment: { triggers: [time(10)] },
      experiment: {
        salt: 's',
        holdout: 10_000,
        variants: [{ id: 'a', buckets: [[0, 10_000]] as const, message: 'f' }],
      },
    };
    const seen = [rememberShown, rememberClosed, rememberRefused, rememberConverted].reduce(
      (record, remember) =>
        remember === rememberShown
          ? rememberShown(record, { id: 'a', epoch: 0 }, START_MS)
          : (remember as typeof rememberClosed)(record, 'a', START_MS),
      memory,
    );
    // An answer to nothing shown since: the unanswered one is shown after it.
    const record = rememberShown(seen, { id: 'a', epoch: 0 }, START_MS);
    let change = everything;
    let isOpenedBefore = true;
    let isBusy = true;
    let perPageView: number | null = 1;
    let remembers = false;
    let seconds = 1;
    const code = () => {
      const view = begin([campaign('a', change), campaign('b', atOnce)], {
        limits: { perPageView },
        remembers,
      });
      if (isOpenedBefore) {
        view.onOpened('a');
        view.gone('a', 0);
      }
      if (isBusy) view.onOpened('b');
      return view.codes(seconds, record)[0];
    };
    const lift: [code: Verdict['code'], lifted: () => void][] = [
      ['blocked:memory', () => (remembers = true)],
      ['blocked:cap.converted', () => (change = { ...change, afterConversion: 'none' })],
      ['blocked:cap.refused', () => (change = { ...change, afterNo: 'none' })],
      ['blocked:cap.closed', () => (change = { ...change, afterClose: 'none' })],
      ['blocked:cap.unanswered', () => (change = { ...change, stopAfterUnanswered: null })],
      ['blocked:cap.showings', () => (change = { ...change, caps: [] })],
      ['blocked:page.view', () => (isOpenedBefore = false)],
      ['waiting:trigger', () => (seconds = 11)],
      ['blocked:limit.pageView', () => (perPageView = null)],
      ['waiting:floor', () => (isBusy = false)],
      ['held:holdout', () => (change = { ...change, experiment: null })],
    ];
    for (const [expected, lifted] of lift) {
      expect(code()).toBe(expected);
      lifted();
    }
    expect(code()).toBe('ready');
  });

  it('what the page tells later counts at once', () => {
    const told: { signedIn: boolean | null } = { signedIn: null };
    const view = begin([campaign('a', { ...atOnce, audience })], { told });
    expect(view.codes(1)).toEqual(['blocked:audience']);
    const later = begin([campaign('a', { ...atOnce, audience })], { told: { signedIn: true } });
    expect(later.codes(1)).toEqual(['ready']);
  });
});

it('every verdict has a sentence for people', () => {
  const write = (atMs: number) => new Date(atMs).toISOString();
  const retryAtMs = START_MS;
  const verdicts: Verdict[] = [
    { code: 'blocked:schedule.before', retryAtMs },
    { code: 'blocked:schedule.closed', retryAtMs: null },
    { code: 'blocked:schedule.after' },
    { code: 'blocked:page.nowhere' },
    { code: 'blocked:page.unmatched' },
    { code: 'blocked:page.excluded' },
    { code: 'blocked:device', device: 'mobile' },
    { code: 'blocked:audience' },
    { code: 'blocked:cap.converted', retryAtMs: null },
    { code: 'blocked:cap.closed', retryAtMs },
    { code: 'blocked:cap.unanswered', retryAtMs: null },
    { code: 'blocked:cap.showings', retryAtMs },
    { code: 'blocked:page.view' },
    { code: 'blocked:yielded', to: 'x' },
    { code: 'waiting:trigger', remainingMs: 1234 },
    { code: 'waiting:trigger', remainingMs: null },
    { code: 'blocked:limit.pageView', retryAtMs: null },
    { code: 'blocked:limit.session', retryAtMs: null },
    { code: 'blocked:limit.day', retryAtMs },
    { code: 'blocked:limit.gap', retryAtMs },
    { code: 'waiting:floor', heldBy: 'x' },
    { code: 'ready' },
    { code: 'shown' },
  ];
  const sentences = verdicts.map((verdict) => verdictSentence(verdict, write));
  expect(new Set(sentences).size).toBe(verdicts.length);
  for (const sentence of sentences) expect(sentence).toMatch(/^[A-Z](?!.*undefined).*\.$/);
  expect(sentences[9]).toContain('again from 2026-11-25T20:00:00.000Z');
  expect(sentences[14]).toContain('1.3 s more');
});

describe('first things first', () => {
  const soon = (priority: number, seconds: number): Change => ({
    priority,
    moment: { triggers: [time(seconds)] },
  });
  it.each<[law: string, a: Change, b: Change, first: string]>([
    ['the higher priority goes first, though triggered later', soon(5, 1), soon(6, 2), 'b'],
    ['among equals the one triggered earlier', soon(5, 2), soon(5, 1), 'b'],
    ['among equals triggered together the older', soon(5, 1), soon(5, 1), 'a'],
    ['a lower priority waits even if it is older', soon(4, 1), soon(5, 1), 'b'],
  ])('%s', (_law, a, b, first) => {
    const view = begin([campaign('a', a), campaign('b', b)]);
    // Each is seen to come at its own second; at the third both want to open.
    view.opens(1);
    view.opens(2);
    expect(view.opens(3)).toBe(first);
  });

  it('a higher priority that has not come holds nobody back', () => {
    expect(begin([campaign('a', soon(1, 1)), campaign('b', soon(9, 60))]).opens(2)).toBe('a');
  });
});

describe('where nothing can be remembered', () => {
  it.each([
    [true, true, 'ready'],
    [true, false, 'ready'],
    [false, true, 'ready'],
    [false, false, 'blocked:memory'],
  ])('may show without memory: %s, memory: %s', (isForgetful, remembers, code) => {
    expect(begin([campaign('a', { ...atOnce, isForgetful })], { remembers }).codes(1)).toEqual([code]);
  });
});

describe('holdout', () => {
  const everybody = {
    salt: 's',
    holdout: 10_000,
    variants: [{ id: 'a', buckets: [[0, 10_000]] as const, message: 'f' }],
  };
  const held: Change = { ...atOnce, experiment: everybody };

  it('is asked last, so that only those who would have seen it are held', () => {
    expect(begin([campaign('a', held)], { limits: { perSession: 1 } }).codes(1)).toEqual(['held:holdout']);
    expect(begin([campaign('a', { ...held, devices: 2 })]).codes(1)).toEqual(['blocked:device']);
    expect(begin([campaign('a', { experiment: everybody })]).codes(1)).toEqual(['waiting:trigger']);
  });

  it('is told once in a page view and takes nobody’s turn', () => {
    const view = begin([campaign('a', held), campaign('b', atOnce)]);
    expect(view.next(memory, at(1))).toMatchObject({ held: [{ id: 'a' }], open: { id: 'b' } });
    view.opens(1);
    expect(view.next(memory, at(2)).held).toEqual([]);
  });
});

it('on a page that nobody sees nothing comes near', () => {
  const view = begin([campaign('a')]);
  expect(view.next(memory, at(4)).near).toMatchObject([{ inMs: 6000 }]);
  view.show(false, 5);
  expect(view.next(memory, at(6)).near).toEqual([]);
  expect(begin([campaign('a')], { isVisible: false }).next(memory, at(4)).near).toEqual([]);
});

it('a message that cannot be fetched gives way and costs no limit', () => {
  const view = begin([campaign('a', atOnce), campaign('b', atOnce)], { limits: { perPageView: 1 } });
  view.giveUp('a');
  expect(view.codes(1)).toEqual(['blocked:unreachable', 'ready']);
});

it('asking why changes nothing: a campaign of another page neither yields nor queues', () => {
  const elsewhere: Change = { ...atOnce, include: [{ kind: 'pageKind', name: 'shop' }], whenBusy: 'yield' };
  const told = { kind: '' };
  const view = begin([campaign('a', atOnce), campaign('b', elsewhere)], { told });
  view.onOpened('a');
  expect(view.codes(1)).toEqual(['shown', 'blocked:page.unmatched']);
  view.gone('a', 2);
  // The page tells what it is only now.
  told.kind = 'shop';
  expect(view.opens(3)).toBe('b');
});
