import type { Trigger } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { someTrigger } from '../testing/arbitrary.ts';
import { at, atOnce, begin, campaign, ids, memory, on, START_MS, time } from '../testing/begin-page-view.ts';
import type { Fact } from '../triggers/trigger.ts';
import { type Memory, NO_ARRIVAL, rememberView, touchSession } from './memory.ts';

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
    view.show(false, 4);
    expect(view.opens(100)).toBeUndefined();
    view.show(true, 100);
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
    view.active(5);
    expect(view.opens(12.9)).toBeUndefined();
    view.show(false, 12.9);
    view.show(true, 60);
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
      touchSession(memory, START_MS + 31 * 60_000, 30, ids, NO_ARRIVAL),
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

describe('asking changes nothing', () => {
  /** What happens on a page view, or is merely asked. */
  const step = fc.oneof(
    fc.record({ kind: fc.constant('wait' as const), seconds: fc.integer({ min: 0, max: 15 }) }),
    fc.record({ kind: fc.constant('ask' as const) }),
    fc.record({ kind: fc.constant('active' as const) }),
    fc.record({ kind: fc.constant('show' as const), isVisible: fc.boolean() }),
    fc.record({ kind: fc.constant('fact' as const), percent: fc.integer({ min: 0, max: 100 }) }),
    fc.record({ kind: fc.constant('leave' as const) }),
  );
  const campaigns = fc.array(
    fc.record({
      triggers: fc.array(someTrigger, { minLength: 1, maxLength: 3 }),
      join: fc.constantFrom('any' as const, 'all' as const),
      whenBusy: fc.constantFrom('wait' as const, 'yield' as const),
      priority: fc.integer({ min: 1, max: 9 }),
    }),
    { minLength: 1, maxLength: 4 },
  );
  it('a visit asked about a hundred times opens the same at the same seconds as one asked about never', () => {
    fc.assert(
      fc.property(campaigns, fc.array(step, { maxLength: 25 }), (rules, steps) => {
        const play = (isAsked: boolean): string[] => {
          const view = begin(
            rules.map(({ triggers, join, whenBusy, priority }, n) =>
              campaign(`c${n}`, { moment: { triggers, join, againAfterSeconds: 5 }, whenBusy, priority }),
            ),
          );
          const opened: string[] = [];
          let seconds = 0;
          for (const one of steps) {
            if (isAsked)
              for (let n = 0; n < 4; n++) [view.next(memory, at(seconds)), view.codes(seconds + n * 3)];
            if (one.kind === 'wait') seconds += one.seconds;
            if (one.kind === 'active') view.active(seconds);
            if (one.kind === 'show') view.show(one.isVisible, seconds);
            if (one.kind === 'fact')
              view.tell({ kind: 'scrolled', percent: one.percent, pixels: 0 }, seconds);
            if (one.kind === 'leave') for (const rule of rules.keys()) view.gone(`c${rule}`, seconds);
            const id = one.kind === 'ask' ? undefined : view.opens(seconds);
            if (id) view.onOpened(id);
            opened.push(`${seconds}: ${id}`);
          }
          return opened;
        };
        expect(play(true)).toEqual(play(false));
      }),
      { numRuns: 500 },
    );
  });
  it('stillness that has come is not lost when the visitor stirs before anybody asked', () => {
    const rule = {
      moment: { join: 'all' as const, triggers: [{ kind: 'inactivity' as const, seconds: 5 }, time(20)] },
    };
    const view = begin([campaign('a', rule)]);
    view.active(6);
    view.active(12);
    expect(view.opens(20)).toBe('a');
  });
});
