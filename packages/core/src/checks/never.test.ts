import type { Audience, Condition, Rule, Schedule } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { plainMessage, plainRule } from '../testing/arbitrary.ts';
import { inTheWay, type Met } from './in-the-way.ts';
import { neverFindings, scheduleFindings } from './never.ts';

const rule = (change: {
  moment?: Partial<Rule['moment']>;
  reach?: Partial<Rule['reach']>;
  limits?: Partial<Rule['limits']>;
}): Rule => ({
  moment: { ...plainRule.moment, ...change.moment },
  reach: {
    ...plainRule.reach,
    pages: { include: [{ kind: 'every' }], exclude: [], follows: null },
    audience: null,
    ...change.reach,
  },
  limits: { ...plainRule.limits, ...change.limits },
});
const codes = (of: Rule) => neverFindings(of).map(({ severity, code }) => `${severity} ${code}`);

const BY_MOUSE = { kind: 'exitMouse', certainty: 'likely' } as const;
const BY_TOUCH = { kind: 'exitTouch', by: 'scrollUp' } as const;
const HOVER = { kind: 'interact', what: 'hover', selector: '#a' } as const;
const CLICK = { ...HOVER, what: 'click' } as const;

// Common practice: a finger hovers nowhere and leaves no window.
it.each([
  ['leaving by mouse on phones', 'any', [BY_MOUSE], ['mobile'], ['stop moment.device']],
  ['hover on tablets and phones', 'any', [HOVER], ['tablet', 'mobile'], ['stop moment.device']],
  ['leaving by touch on desktops', 'any', [BY_TOUCH], ['desktop'], ['stop moment.device']],
  ['both ways of leaving, everywhere', 'any', [BY_MOUSE, BY_TOUCH], ['desktop', 'mobile'], []],
  ['both at once, everywhere', 'all', [BY_MOUSE, BY_TOUCH], ['desktop', 'mobile'], ['stop moment.device']],
  ['leaving by mouse, everywhere', 'any', [BY_MOUSE], ['desktop', 'mobile'], ['warn moment.device']],
  ['a click on phones', 'any', [CLICK], ['mobile'], []],
] as const)('%s', (_what, join, triggers, devices, found) => {
  expect(
    codes(rule({ moment: { join, triggers: [...triggers] }, reach: { devices: [...devices] } })),
  ).toEqual(found);
});

const begins = (address: string) => ({ kind: 'begins', address }) as const;
const exact = (address: string) => ({ kind: 'exact', address }) as const;
it.each([
  [[exact('/a')], [exact('/a')], true],
  [[exact('/tours/one'), begins('/tours/two')], [begins('/tours')], true],
  [[exact('/a'), exact('/b')], [exact('/a')], false],
  [[begins('/tours')], [begins('/tours/one')], false],
])('pages %j without %j are none: %s', (include, exclude, isNone) => {
  const found = codes(rule({ reach: { pages: { include, exclude, follows: null } } }));
  expect(found).toEqual(isNone ? ['stop pages.taken-back'] : []);
});

const allOf = (...items: [condition: Condition, not?: boolean][]): Audience => ({
  match: 'all',
  groups: [
    {
      not: false,
      match: 'all',
      items: items.map(([condition, not = false]) => ({ not, condition })),
    },
  ],
});
const sessions = (comparison: 'atLeast' | 'atMost' | 'exactly', count: number): Condition => ({
  kind: 'sessions',
  comparison,
  count,
});
describe('an audience nobody can be in', () => {
  it.each<[string, Audience, boolean]>([
    [
      'new and returning',
      allOf([{ kind: 'visitor', is: 'new' }], [{ kind: 'visitor', is: 'returning' }]),
      true,
    ],
    [
      'in and not in',
      allOf([{ kind: 'country', code: 'no' }], [{ kind: 'country', code: 'no' }, true]),
      true,
    ],
    ['two countries', allOf([{ kind: 'country', code: 'no' }], [{ kind: 'country', code: 'gb' }]), true],
    [
      'neither of two countries',
      allOf([{ kind: 'country', code: 'no' }, true], [{ kind: 'country', code: 'gb' }, true]),
      false,
    ],
    [
      'the 4th session at least and the 3rd at most',
      allOf([sessions('atLeast', 4)], [sessions('atMost', 3)]),
      true,
    ],
    ['the 3rd at least and at most', allOf([sessions('atLeast', 3)], [sessions('atMost', 3)]), false],
    [
      'many sessions and few views, which are not the same count',
      allOf([sessions('atLeast', 5)], [{ kind: 'views', comparison: 'atMost', count: 3 }]),
      false,
    ],
    [
      'more in the basket than there may be',
      allOf(
        [{ kind: 'basketItems', comparison: 'atLeast', count: 3 }],
        [{ kind: 'basketItems', comparison: 'atMost', count: 2 }],
        [sessions('atLeast', 2)],
      ),
      true,
    ],
    ['exactly two, and at least two', allOf([sessions('exactly', 2)], [sessions('atLeast', 2)]), false],
    [
      'any of what contradicts',
      {
        ...allOf([{ kind: 'visitor', is: 'new' }], [{ kind: 'visitor', is: 'returning' }]),
        match: 'any',
      },
      false,
    ],
  ])('%s', (_what, audience, isNobody) => {
    expect(codes(rule({ reach: { audience } }))).toEqual(isNobody ? ['stop audience.nobody'] : []);
  });
});

describe('a schedule', () => {
  const open: Schedule = { start: null, end: null, days: [], hours: [], blackouts: [], zone: 'site' };
  const at = Date.UTC(2026, 10, 26, 12);
  const found = (schedule: object) =>
    scheduleFindings(rule({ limits: { schedule: { ...open, ...schedule } } }), at, 'Europe/London').length;
  it.each([
    ['is over', { end: '2026-11-26T11:00' }, 1],
    ['ends in an hour', { end: '2026-11-26T13:00' }, 0],
    ['begins in a year', { start: '2027-11-26T13:00' }, 0],
    // On the last meridian it is still midnight: visitors there have the day before them.
    ['is over here and not for every visitor', { end: '2026-11-26T11:00', zone: 'visitor' }, 0],
    ['is over for every visitor', { end: '2026-11-25T23:00', zone: 'visitor' }, 1],
    ['has no day left', { end: '2026-11-28T00:00', days: [7] }, 1],
    ['has a day left', { end: '2026-11-30T00:00', days: [7] }, 0],
  ])('that %s', (_what, schedule, count) => {
    expect(found(schedule)).toBe(count);
  });
});

describe('another campaign in the way', () => {
  const atOnce = { join: 'any', triggers: [{ kind: 'time', seconds: 0 }], notBeforeSeconds: 0 } as const;
  const always = {
    caps: [],
    afterClose: 'none',
    afterNo: 'none',
    afterConversion: 'none',
    stopAfterUnanswered: null,
    schedule: null,
    holdout: 0,
  } as const;
  const met = (id: string, anchor: 'top' | 'bottom', change: Parameters<typeof rule>[0]): Met => ({
    id,
    name: `The ${id}`,
    document: {
      message: { ...plainMessage, format: 'bar', anchor },
      rule: rule(change),
      variants: [],
    },
  });
  const bar = met('bar', 'top', {
    moment: { ...atOnce, triggers: [...atOnce.triggers] },
    reach: { devices: ['desktop', 'tablet', 'mobile'] },
    limits: { ...always, caps: [] },
  });
  /** The bar with some of its rule changed. */
  const barOf = (change: Partial<{ [Part in keyof Rule]: Partial<Rule[Part]> }>): Met => {
    const { moment, reach, limits } = bar.document.rule;
    return {
      ...bar,
      document: {
        ...bar.document,
        rule: {
          moment: { ...moment, ...change.moment },
          reach: { ...reach, ...change.reach },
          limits: { ...limits, ...change.limits },
        },
      },
    };
  };
  const mine = (change: Parameters<typeof rule>[0] = {}, anchor: 'top' | 'bottom' = 'top') =>
    met('mine', anchor, {
      ...change,
      moment: {
        join: 'any',
        triggers: [{ kind: 'time', seconds: 10 }],
        notBeforeSeconds: 0,
        ...change.moment,
      },
    });
  const found = (subject: Met, other: Met = bar) =>
    inTheWay(subject, [other]).map(({ severity, code }) => `${severity} ${code}`);
  /** With a variant that is not as the first message and moment are. */
  const trying = (of: Met, variant: object): Met => ({
    ...of,
    document: {
      ...of.document,
      variants: [
        { id: 'b', name: 'B', weight: 1, message: of.document.message, moment: null, ...variant } as never,
      ],
    },
  });
  const low = { message: { ...plainMessage, format: 'bar', anchor: 'bottom' } };
  it('is named, and what giving way to it means', () => {
    const [finding] = inTheWay(mine({ limits: { whenBusy: 'yield' } }), [bar]);
    expect(finding).toMatchObject({ severity: 'stop', code: 'busy.never' });
    expect(finding?.text).toContain('“The bar”');
    expect(found(mine({ limits: { whenBusy: 'wait' } }))).toEqual(['warn busy.after']);
  });
  it('is named when it is this one that stands in the way of a running one', () => {
    const [finding] = inTheWay(bar, [mine({ limits: { whenBusy: 'yield' } })]);
    expect(finding).toMatchObject({ severity: 'warn', code: 'busy.hides' });
    expect(finding?.text).toContain('nobody would see that one');
    expect(inTheWay(bar, [mine({ limits: { whenBusy: 'wait' } })])[0]?.text).toContain(
      'only who closes this one',
    );
  });
  it.each<[string, string[]]>([
    ['itself', found({ ...mine(), id: 'bar' })],
    ['at the other edge', found(mine({}, 'bottom'))],
    [
      'at the other edge of a phone only, for who has a phone',
      found(mine({ reach: { devices: ['mobile'] } }), {
        ...bar,
        document: {
          ...bar.document,
          message: {
            ...bar.document.message,
            style: { ...plainMessage.style, mobile: { ...plainMessage.style.mobile, anchor: 'bottom' } },
          },
        },
      }),
    ],
    ['with a variant at the other edge', found(mine(), trying(bar, low))],
    ['with a variant of mine at the other edge', found(trying(mine(), low))],
    [
      'with a variant that opens later',
      found(mine(), trying(bar, { moment: { ...bar.document.rule.moment, notBeforeSeconds: 20 } })),
    ],
    [
      'with a variant of mine that opens sooner',
      found(
        trying(mine(), {
          moment: { ...bar.document.rule.moment, triggers: [{ kind: 'load', when: 'ready' }] },
        }),
      ),
    ],
    [
      'that opens later',
      found(
        mine({ moment: { triggers: [{ kind: 'load', when: 'ready' }] } }),
        barOf({ moment: { notBeforeSeconds: 5 } }),
      ),
    ],
    [
      'of which each of two moments must have come, one of them later',
      found(
        mine(),
        barOf({
          moment: {
            join: 'all',
            triggers: [
              { kind: 'time', seconds: 5 },
              { kind: 'time', seconds: 20 },
            ],
          },
        }),
      ),
    ],
    ['that comes once a visitor', found(mine(), barOf({ limits: { caps: [{ max: 1, per: 'ever' }] } }))],
    ['that comes to nobody without memory', found(mine(), barOf({ limits: { withoutMemory: 'never' } }))],
    ['for some only', found(mine(), barOf({ reach: { audience: allOf([{ kind: 'visitor', is: 'new' }]) } }))],
    [
      'on other pages',
      found(mine(), barOf({ reach: { pages: { include: [exact('/a')], exclude: [], follows: null } } })),
    ],
  ])('%s is none', (_what, codes) => {
    expect(codes).toEqual([]);
  });
  const pages = (
    include: Rule['reach']['pages']['include'],
    exclude: Rule['reach']['pages']['exclude'] = [],
  ) => ({
    reach: { pages: { include, exclude, follows: null } },
  });
  const every = { kind: 'every' } as const;
  it.each<[what: string, mine: Parameters<typeof pages>, its: Parameters<typeof pages>, isInTheWay: boolean]>(
    [
      ['the same page', [[exact('/a')]], [[exact('/a')]], true],
      ['one of several', [[exact('/a')]], [[exact('/b'), exact('/a')]], true],
      ['one of mine only', [[exact('/a'), exact('/b')]], [[exact('/a')]], false],
      ['every page', [[exact('/a')]], [[every]], true],
      ['every page but one', [[exact('/a')]], [[every], [exact('/a')]], false],
      [
        'every page but one that mine is not on either',
        [[every], [exact('/a')]],
        [[every], [exact('/a')]],
        true,
      ],
      ['the same page but for another', [[exact('/a')]], [[exact('/a')], [exact('/c')]], false],
    ],
  )('on %s', (_, of, its, isInTheWay) => {
    expect(found(mine(pages(...of)), barOf(pages(...its)))).toEqual(isInTheWay ? ['warn busy.after'] : []);
  });
  it('comes first by its rank where both open at one time', () => {
    const at = (priority: number, seconds = 10) =>
      found(
        mine({ limits: { priority: 5 } }),
        barOf({ moment: { triggers: [{ kind: 'time', seconds }] }, limits: { priority } }),
      );
    expect([at(6), at(5), at(4)]).toEqual([['warn busy.after'], [], ['warn busy.hides'].slice(1)]);
    expect([at(1, 9), at(9, 11)]).toEqual([['warn busy.after'], []]);
  });
  it('has not come before a pause in touching has', () => {
    const still = mine({ moment: { triggers: [{ kind: 'inactivity', seconds: 10 }] } });
    const at = (seconds: number) =>
      found(still, barOf({ moment: { triggers: [{ kind: 'time', seconds }] } }));
    expect([at(9), at(11)]).toEqual([['warn busy.after'], []]);
    const both = mine({
      moment: {
        join: 'all',
        triggers: [
          { kind: 'time', seconds: 3 },
          { kind: 'time', seconds: 20 },
        ],
      },
    });
    expect(found(both, barOf({ moment: { triggers: [{ kind: 'time', seconds: 12 }] } }))).toEqual([
      'warn busy.after',
    ]);
    const either = mine({
      moment: {
        join: 'any',
        triggers: [
          { kind: 'time', seconds: 3 },
          { kind: 'time', seconds: 20 },
        ],
      },
    });
    expect(found(either, barOf({ moment: { triggers: [{ kind: 'time', seconds: 12 }] } }))).toEqual([]);
  });
  it('is one when the sooner of its two moments opens it', () => {
    const triggers = [
      { kind: 'time', seconds: 5 },
      { kind: 'time', seconds: 20 },
    ] as const;
    expect(found(mine(), barOf({ moment: { join: 'any', triggers: [...triggers] } }))).toEqual([
      'warn busy.after',
    ]);
  });
  it('is one at the same edge of a phone, though elsewhere on desktops', () => {
    const placed = {
      ...mine({ reach: { devices: ['mobile'] } }, 'bottom'),
    };
    const { message } = placed.document;
    const onPhones: Met = {
      ...placed,
      document: {
        ...placed.document,
        message: {
          ...message,
          style: { ...message.style, mobile: { ...message.style.mobile, anchor: 'top' } },
        },
      },
    };
    expect(found(onPhones)).toEqual(['warn busy.after']);
  });
});
