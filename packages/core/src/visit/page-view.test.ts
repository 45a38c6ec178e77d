import type {
  Anchor,
  Device,
  Format,
  Manifest,
  ManifestCampaign,
  SiteLimits,
  Trigger,
} from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellsOf } from '../arbitration/cells.ts';
import { createPageIndex } from '../manifest/page-index.ts';
import { PLAIN_STYLE } from '../message/plain.ts';
import { plainSettings, someTrigger } from '../testing/arbitrary.ts';
import type { Fact } from '../triggers/trigger.ts';
import { type Verdict, verdictSentence } from '../verdict/verdict.ts';
import { explain } from './explain.ts';
import { EXTRAS } from './extras.ts';
import {
  type Memory,
  newMemory,
  rememberConverted,
  rememberShown,
  rememberView,
  touchSession,
} from './memory.ts';
import { createPageView, type PageViewFacts } from './page-view.ts';
import { RARE } from './rare.ts';

const START_MS = Date.UTC(2026, 10, 25, 20);
const time = (seconds: number): Trigger => ({ kind: 'time', seconds });
const MODAL = { format: 'modal', anchor: 'center', style: PLAIN_STYLE } as const;
type Placing = { readonly format: Format; readonly anchor: Anchor; readonly tablet?: Anchor };
type Change = Partial<Omit<ManifestCampaign, 'moment'>> & { moment?: Partial<ManifestCampaign['moment']> };
const campaign = (id: string, { moment, ...change }: Change = {}): ManifestCampaign => ({
  id,
  version: 1,
  cells: cellsOf([MODAL]),
  message: 'f'.repeat(32),
  moment: { join: 'any', triggers: [time(10)], notBeforeSeconds: 0, againAfterSeconds: null, ...moment },
  includeKeys: [],
  excludeKeys: [],
  include: [{ kind: 'every' }],
  exclude: [],
  devices: 7,
  audience: null,
  schedule: null,
  caps: [],
  afterClose: 'none',
  afterConversion: 'none',
  stopAfterUnanswered: null,
  whenBusy: 'wait',
  afterNo: 'none',
  priority: 5,
  epoch: 0,
  isForgetful: true,
  experiment: null,
  ...change,
});
const atOnce: Change = { moment: { triggers: [time(0)] } };
const on = (...triggers: Trigger[]): Change => ({ moment: { triggers } });

const ids = { visitor: () => 'v', session: () => 's' };
const memory = newMemory(ids, START_MS);
const at = (seconds: number) => ({ wallMs: START_MS + seconds * 1000, ticksMs: seconds * 1000 });
const facts: PageViewFacts = {
  kind: '',
  holds: () => false,
  signedIn: null,
  basket: null,
  attributes: {},
  languages: ['en'],
  country: null,
  browser: 'other',
  system: 'other',
  ownHost: 's.example',
  timeZone: () => 'UTC',
};

interface Begin {
  readonly isVisible?: boolean;
  readonly limits?: Partial<SiteLimits>;
  readonly told?: Partial<PageViewFacts>;
  readonly device?: Device;
  readonly remembers?: boolean;
}

function begin(
  campaigns: ManifestCampaign[],
  { isVisible = true, limits, told, device = 'desktop', remembers = true }: Begin = {},
) {
  const manifest: Manifest = {
    v: 1,
    parts: ['extras', 'rare'],
    asksCountry: false,
    timeZone: 'Europe/London',
    site: { ...plainSettings, limits: { ...plainSettings.limits, ...limits } },
    campaigns,
  };
  const index = createPageIndex(manifest, EXTRAS);
  const input = {
    manifest,
    index,
    href: 'https://s.example/a',
    device,
    facts: () => ({ ...facts, ...told }),
  } as const;
  const view = createPageView({
    ...input,
    pageKey: '/a',
    isVisible,
    remembers: () => remembers,
    now: at(0),
    extras: { ...EXTRAS, ...RARE },
  });
  return {
    ...view,
    opens: (seconds: number, seen: Memory = memory) => view.next(seen, at(seconds)).open?.id,
    codes: (seconds: number, seen: Memory = memory) =>
      explain(view, input, seen, at(seconds)).map(({ code }) => code),
    tell: (fact: Fact, seconds: number) => view.onFact(fact, memory, at(seconds)),
    gone: (id: string, seconds: number) => view.onGone(id, memory, at(seconds)),
  };
}

describe('time on page', () => {
  it('opens at its second and not before', () => {
    const view = begin([campaign('a')]);
    expect(view.opens(9.999)).toBeUndefined();
    expect(view.opens(10)).toBe('a');
  });

  it('an empty delay is at once (common practice)', () => {
    expect(begin([campaign('a', atOnce)]).opens(0)).toBe('a');
  });

  it('stands still while the tab is hidden', () => {
    const view = begin([campaign('a')]);
    view.setVisible(false, at(4));
    expect(view.opens(100)).toBeUndefined();
    view.setVisible(true, at(100));
    expect(view.opens(105.9)).toBeUndefined();
    expect(view.opens(106)).toBe('a');
  });

  it('does not open in a tab that was never seen', () => {
    expect(begin([campaign('a', atOnce)], { isVisible: false }).opens(60)).toBeUndefined();
  });

  it('in the session counts the pages before this one', () => {
    const seen = { ...memory, session: { ...memory.session, visibleMs: 50_000 } };
    const view = begin([campaign('a', on({ kind: 'sessionTime', seconds: 60 }))]);
    expect(view.opens(9.9, seen)).toBeUndefined();
    expect(view.opens(10, seen)).toBe('a');
  });

  it('tells how long until the next could open', () => {
    const view = begin([campaign('late', on(time(30))), campaign('soon', on(time(8)))]);
    expect(view.next(memory, at(3)).near.map(({ campaign: { id }, inMs }) => [id, inMs])).toEqual([
      ['soon', 5000],
      ['late', 27_000],
    ]);
  });
});

describe('each trigger happens by its own fact and by no lesser one', () => {
  it.each<[what: string, trigger: Trigger, no: Fact[], yes: Fact]>([
    ['the document is parsed', { kind: 'load', when: 'ready' }, [], { kind: 'ready' }],
    ['everything is loaded', { kind: 'load', when: 'loaded' }, [{ kind: 'ready' }], { kind: 'loaded' }],
    [
      '40 % of the page',
      { kind: 'scroll', unit: 'percent', amount: 40 },
      [{ kind: 'scrolled', percent: 39.9, pixels: 9000 }],
      { kind: 'scrolled', percent: 40, pixels: 1 },
    ],
    [
      '600 pixels of the page',
      { kind: 'scroll', unit: 'pixels', amount: 600 },
      [{ kind: 'scrolled', percent: 90, pixels: 599 }],
      { kind: 'scrolled', percent: 10, pixels: 600 },
    ],
    [
      'an element',
      { kind: 'element', selector: '#a' },
      [{ kind: 'reached', selector: '#b' }],
      { kind: 'reached', selector: '#a' },
    ],
    [
      'the end of the article',
      { kind: 'articleEnd' },
      [{ kind: 'scrolled', percent: 100, pixels: 1 }],
      { kind: 'articleEnd' },
    ],
    [
      'a likely leaving',
      { kind: 'exitMouse', certainty: 'likely' },
      [
        { kind: 'exitMouse', certainty: 'early' },
        { kind: 'exitTouch', by: 'back' },
      ],
      { kind: 'exitMouse', certainty: 'certain' },
    ],
    [
      'the back gesture',
      { kind: 'exitTouch', by: 'back' },
      [{ kind: 'exitTouch', by: 'scrollUp' }],
      { kind: 'exitTouch', by: 'back' },
    ],
    ['coming back to the tab', { kind: 'tabReturn' }, [{ kind: 'ready' }], { kind: 'tabReturned' }],
    [
      'a click',
      { kind: 'interact', what: 'click', selector: '#a' },
      [{ kind: 'interacted', what: 'hover', selector: '#a' }],
      { kind: 'interacted', what: 'click', selector: '#a' },
    ],
    [
      'an event',
      { kind: 'event', name: 'booked', condition: null },
      [{ kind: 'event', name: 'basket', data: {} }],
      { kind: 'event', name: 'booked', data: undefined },
    ],
    [
      'an event with a condition',
      { kind: 'event', name: 'basket', condition: { path: 'sum.total', comparison: 'atLeast', value: 60 } },
      [
        { kind: 'event', name: 'basket', data: { sum: { total: 59 } } },
        { kind: 'event', name: 'basket', data: { sum: null } },
        { kind: 'event', name: 'basket', data: { sum: { total: '60' } } },
      ],
      { kind: 'event', name: 'basket', data: { sum: { total: 60 } } },
    ],
    ['by hand', { kind: 'hand' }, [{ kind: 'asked', campaign: 'b' }], { kind: 'asked', campaign: 'a' }],
  ])('%s', (_what, trigger, no, yes) => {
    const view = begin([campaign('a', on(trigger))]);
    for (const fact of no) view.tell(fact, 5);
    expect(view.opens(5)).toBeUndefined();
    view.tell(yes, 6);
    expect(view.opens(6)).toBe('a');
  });

  it('stillness counts from the last sign of life, and stands still while hidden', () => {
    const view = begin([campaign('a', on({ kind: 'inactivity', seconds: 8 }))]);
    view.onActive(at(5));
    expect(view.opens(12.9)).toBeUndefined();
    view.setVisible(false, at(12.9));
    view.setVisible(true, at(60));
    expect(view.opens(67.9)).toBeUndefined();
    expect(view.opens(68)).toBe('a');
  });

  it.each<[what: string, trigger: Trigger, seen: Memory]>([
    [
      'the third page view',
      { kind: 'count', of: 'viewsInSession', atLeast: 3 },
      ['/x', '/y', '/a'].reduce(rememberView, memory),
    ],
    [
      'the second view of this page',
      { kind: 'count', of: 'viewsOfPage', atLeast: 2 },
      ['/a', '/a'].reduce(rememberView, memory),
    ],
    [
      'the second session',
      { kind: 'count', of: 'sessions', atLeast: 2 },
      touchSession(memory, START_MS + 31 * 60_000, 30, ids),
    ],
  ])('counts: %s', (_what, trigger, seen) => {
    const view = () => begin([campaign('a', on(trigger))]);
    expect(view().opens(0, memory)).toBeUndefined();
    expect(view().opens(0, seen)).toBe('a');
  });
});

describe('arming and joining', () => {
  it('leaving is not believed in the first three seconds (common practice), nor remembered', () => {
    const view = begin([campaign('a', on({ kind: 'exitMouse', certainty: 'certain' }))]);
    view.tell({ kind: 'exitMouse', certainty: 'certain' }, 2.9);
    expect(view.opens(5)).toBeUndefined();
    view.tell({ kind: 'exitMouse', certainty: 'certain' }, 5);
    expect(view.opens(5)).toBe('a');
  });

  it('nothing opens before its arming time, but what happened is remembered', () => {
    const view = begin([
      campaign('a', { moment: { triggers: [{ kind: 'articleEnd' }], notBeforeSeconds: 6 } }),
    ]);
    view.tell({ kind: 'articleEnd' }, 2);
    expect(view.next(memory, at(2)).near[0]?.inMs).toBe(4000);
    expect(view.opens(6)).toBe('a');
  });

  it('any: the first to happen opens it; all: each must have happened', () => {
    const triggers: Trigger[] = [time(18), { kind: 'scroll', unit: 'percent', amount: 40 }];
    const any = begin([campaign('a', { moment: { join: 'any', triggers } })]);
    const all = begin([campaign('a', { moment: { join: 'all', triggers } })]);
    for (const view of [any, all]) view.tell({ kind: 'scrolled', percent: 50, pixels: 1 }, 5);
    expect([any.opens(5), all.opens(5)]).toEqual(['a', undefined]);
    expect(all.next(memory, at(5)).near[0]?.inMs).toBe(13_000);
    expect(all.opens(18)).toBe('a');
  });

  it('the order in which triggers stand never matters', () => {
    const someFact = fc.constantFrom<Fact>(
      { kind: 'ready' },
      { kind: 'scrolled', percent: 20, pixels: 20 },
      { kind: 'articleEnd' },
      { kind: 'exitMouse', certainty: 'likely' },
      { kind: 'tabReturned' },
    );
    fc.assert(
      fc.property(
        fc.constantFrom('any' as const, 'all' as const),
        fc.array(someTrigger, { minLength: 1, maxLength: 4 }),
        fc.array(someFact, { maxLength: 6 }),
        (join, triggers, happened) => {
          const one = begin([campaign('a', { moment: { join, triggers } })]);
          const other = begin([campaign('a', { moment: { join, triggers: [...triggers].reverse() } })]);
          happened.forEach((fact, n) => {
            for (const view of [one, other]) view.tell(fact, 2 + n);
          });
          expect(one.codes(10)).toEqual(other.codes(10));
        },
      ),
    );
  });

  it('opens once in a page view', () => {
    const view = begin([campaign('a', atOnce)]);
    view.onOpened('a');
    view.gone('a', 5);
    expect(view.opens(50)).toBeUndefined();
    expect(view.codes(50)).toEqual(['blocked:page.view']);
  });

  it('unless it says otherwise: then again, when it happens anew after the pause', () => {
    const view = begin([
      campaign('a', { moment: { triggers: [{ kind: 'tabReturn' }], againAfterSeconds: 30 } }),
    ]);
    view.tell({ kind: 'tabReturned' }, 5);
    view.onOpened('a');
    view.gone('a', 10);
    expect(view.opens(60)).toBeUndefined();
    view.tell({ kind: 'tabReturned' }, 61);
    expect(view.opens(61)).toBe('a');
  });
});

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
  const shown = rememberShown(memory, { id: 'x', caps: [], epoch: 0 }, START_MS);
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
  const converted = rememberConverted(
    rememberShown(memory, { id: 'a', caps: [], epoch: 0 }, START_MS),
    'a',
    START_MS,
  );
  const shown = rememberShown(memory, { id: 'a', caps: [], epoch: 0 }, START_MS);
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
    view.codes(1);
    view.codes(2);
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
  const everybody = { salt: 's', holdout: 10_000, variants: [{ id: 'a', weight: 100, message: 'f' }] };
  const held: Change = { ...atOnce, experiment: everybody };

  it('is asked last, so that only those who would have seen it are held', () => {
    expect(begin([campaign('a', held)], { limits: { perSession: 1 } }).codes(1)).toEqual(['held:holdout']);
    expect(begin([campaign('a', { ...held, devices: 2 })]).codes(1)).toEqual(['blocked:device']);
    expect(begin([campaign('a', { experiment: everybody })]).codes(1)).toEqual(['waiting:trigger']);
  });

  it('is told once in a page view and takes nobody’s turn', () => {
    const view = begin([campaign('a', held), campaign('b', atOnce)]);
    expect(view.next(memory, at(1))).toMatchObject({ held: [{ id: 'a' }], open: { id: 'b' } });
    expect(view.next(memory, at(2)).held).toEqual([]);
  });
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
