import type { Audience, Condition, Rule, Schedule } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { plainMessage, plainRule } from '../testing/arbitrary.ts';
import { inTheWay, type Neighbour } from './in-the-way.ts';
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
  const bar: Neighbour = {
    id: 'bar',
    name: 'Notice',
    state: 'running',
    format: 'bar',
    anchor: 'top',
    rule: rule({ moment: { ...atOnce, triggers: [...atOnce.triggers] }, limits: { ...always, caps: [] } }),
  };
  const mine = (change: Parameters<typeof rule>[0] = {}, anchor: 'top' | 'bottom' = 'top') => ({
    id: 'mine',
    messages: [{ ...plainMessage, format: 'bar' as const, anchor }],
    rule: rule({
      ...change,
      moment: {
        join: 'any',
        triggers: [{ kind: 'time', seconds: 10 }],
        notBeforeSeconds: 0,
        ...change.moment,
      },
    }),
  });
  const found = (subject: ReturnType<typeof mine>, other: Neighbour = bar) =>
    inTheWay(subject, [other]).map(({ code }) => code);
  it('is named, and what giving way to it means', () => {
    const [finding] = inTheWay(mine({ limits: { whenBusy: 'yield' } }), [bar]);
    expect(finding).toMatchObject({ code: 'busy.never', text: expect.stringContaining('“Notice”') });
    expect(found(mine({ limits: { whenBusy: 'wait' } }))).toEqual(['busy.after']);
  });
  it.each<[string, string[]]>([
    ['itself', found({ ...mine(), id: 'bar' })],
    ['at the other edge', found(mine({}, 'bottom'))],
    ['that rests', found(mine(), { ...bar, state: 'resting' })],
    [
      'that opens later',
      found(mine({ moment: { triggers: [{ kind: 'load', when: 'ready' }] } }), {
        ...bar,
        rule: { ...bar.rule, moment: { ...bar.rule.moment, notBeforeSeconds: 5 } },
      }),
    ],
    [
      'that comes once a visitor',
      found(mine(), {
        ...bar,
        rule: { ...bar.rule, limits: { ...bar.rule.limits, caps: [{ max: 1, per: 'ever' }] } },
      }),
    ],
    [
      'for some only',
      found(mine(), {
        ...bar,
        rule: {
          ...bar.rule,
          reach: { ...bar.rule.reach, audience: allOf([{ kind: 'visitor', is: 'new' }]) },
        },
      }),
    ],
    [
      'on other pages',
      found(mine(), {
        ...bar,
        rule: {
          ...bar.rule,
          reach: { ...bar.rule.reach, pages: { include: [exact('/a')], exclude: [], follows: null } },
        },
      }),
    ],
  ])('%s is none', (_what, codes) => {
    expect(codes).toEqual([]);
  });
});
