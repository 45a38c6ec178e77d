import type { Audience, Pages, Trigger } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainRule, someSentenceInput } from '../testing/arbitrary.ts';
import type { Names } from './names.ts';
import { ruleSentence, type SentenceInput, sentenceText } from './rule-sentence.ts';

const base: SentenceInput = {
  format: 'modal',
  anchor: 'center',
  closing: { afterSeconds: null, means: 'later' },
  variants: [],
  rule: {
    ...plainRule,
    moment: { ...plainRule.moment, triggers: [{ kind: 'time', seconds: 12 }] },
    reach: { ...plainRule.reach, devices: ['desktop', 'tablet', 'mobile'] },
    limits: { ...plainRule.limits, caps: [{ max: 1, per: 'session' }] },
  },
};
const exact = (...addresses: string[]) => addresses.map((address) => ({ kind: 'exact' as const, address }));
type Group = Audience['groups'][number];
type Item = Group['items'][number];
const anEarlier: Item = { not: false, condition: { kind: 'visitor', is: 'returning' } };
const inFirst: Item = { not: false, condition: { kind: 'visitor', is: 'new' } };
const fromNorway: Item = { not: false, condition: { kind: 'country', code: 'no' } };
const names: Names = { campaign: () => 'Sky letter', group: () => 'Night tours' };
type Change = (input: SentenceInput) => SentenceInput;
const limits =
  (change: Partial<SentenceInput['rule']['limits']>): Change =>
  (input) => ({
    ...input,
    rule: { ...input.rule, limits: { ...input.rule.limits, ...change } },
  });
const pages =
  (include: Pages['include'], exclude: ReturnType<typeof exact> = []): Change =>
  (input) => ({
    ...input,
    rule: { ...input.rule, reach: { ...input.rule.reach, pages: { include, exclude, follows: null } } },
  });
const moment =
  (change: Partial<SentenceInput['rule']['moment']>): Change =>
  (input) => ({ ...input, rule: { ...input.rule, moment: { ...input.rule.moment, ...change } } });
const triggers = (...list: Trigger[]): Change => moment({ triggers: list });
const seconds = (value: number): Change => triggers({ kind: 'time', seconds: value });
const audience =
  (...groups: [Partial<Group>, ...Item[]][]): Change =>
  (input) => ({
    ...input,
    rule: {
      ...input.rule,
      reach: {
        ...input.rule.reach,
        audience: {
          match: 'all',
          groups: groups.map(([change, ...items]) => ({ not: false, match: 'all', ...change, items })),
        },
      },
    },
  });
const devices =
  (...list: ('desktop' | 'tablet' | 'mobile')[]): Change =>
  (input) => ({
    ...input,
    rule: { ...input.rule, reach: { ...input.rule.reach, devices: list } },
  });

it('says a whole rule in one sentence', () => {
  expect(sentenceText(ruleSentence(base))).toBe(
    'A modal in the centre opens after 12 seconds on every page, on every device, once per session. ' +
      'After a close it stays away for the rest of the session; after a conversion it never comes again.',
  );
});

describe('each phrase is correct in number and commas', () => {
  it.each<[part: string, change: Change, words: string]>([
    ['a higher priority', limits({ priority: 8 }), ', going before others with priority 8 of 9.'],
    ['a lower priority', limits({ priority: 2 }), ', letting others go first with priority 2 of 9.'],
    ['without memory', limits({ withoutMemory: 'always' }), ', even where nothing can be remembered.'],
    ['a holdout', limits({ holdout: 10 }), ', held back from 10 % of visitors.'],
    [
      'a holdout and versions',
      (input) => ({ ...limits({ holdout: 5 })(input), variants: [{ id: 'b', weight: 30 }] }),
      ', held back from 5 % of visitors and tried in 2 variants (a 70 %, b 30 %).',
    ],
    [
      'a pause after a no',
      limits({ afterNo: { count: 3, unit: 'hours' } }),
      'session; after a no it stays away for 3 hours; after a conversion',
    ],
    [
      'a page group',
      (input) => ({
        ...input,
        rule: {
          ...input.rule,
          reach: {
            ...input.rule.reach,
            pages: { include: [{ kind: 'group', id: 'g' }], exclude: [], follows: null },
          },
        },
      }),
      'only on the pages of the group “Night tours”,',
    ],
    [
      'a followed campaign',
      (input) => ({
        ...input,
        rule: {
          ...input.rule,
          reach: { ...input.rule.reach, pages: { include: exact('/a'), exclude: exact('/b'), follows: 'c' } },
        },
      }),
      'only on the pages of the campaign “Sky letter” and /a but not on /b,',
    ],
    ['an empty delay', seconds(0), 'opens at once on'],
    ['one second', seconds(1), 'after 1 second on'],
    ['half seconds', seconds(1.5), 'after 1.5 seconds on'],
    [
      'the first of several',
      triggers(
        { kind: 'articleEnd' },
        { kind: 'time', seconds: 25 },
        { kind: 'exitMouse', certainty: 'certain' },
      ),
      'at the end of the article, after 25 seconds or once leaving by mouse is certain on',
    ],
    [
      'all of several',
      (input) =>
        moment({ join: 'all' })(
          triggers({ kind: 'time', seconds: 18 }, { kind: 'scroll', unit: 'percent', amount: 40 })(input),
        ),
      'after 18 seconds and after 40 % of the page (all of them) on',
    ],
    [
      'the fourth session',
      triggers({ kind: 'count', of: 'sessions', atLeast: 4 }),
      'from the 4th session onwards on',
    ],
    [
      'the 22nd view',
      triggers({ kind: 'count', of: 'viewsOfPage', atLeast: 22 }),
      'from the 22nd view of the page onwards on',
    ],
    [
      'arming and again',
      moment({ notBeforeSeconds: 3, againAfterSeconds: 30 }),
      'after 12 seconds, not before 3 seconds, and again 30 seconds after it is gone, on',
    ],
    [
      'an event with a condition',
      triggers({
        kind: 'event',
        name: 'basket',
        condition: { path: 'total', comparison: 'atLeast', value: 60 },
      }),
      'on the event “basket” with “total” at least 60',
    ],
    [
      'a folder of pages',
      pages([{ kind: 'begins', address: '/journal/' }] as never),
      'only on addresses that begin with /journal/,',
    ],
    ['one page', pages(exact('/a')), 'only on /a,'],
    ['two pages', pages(exact('/a', '/b')), 'only on /a and /b,'],
    ['three pages', pages(exact('/a', '/b', '/c')), 'only on /a, /b and /c,'],
    ['everywhere but', pages([{ kind: 'every' }], exact('/a', '/b')), 'on every page but not on /a or /b,'],
    ['nowhere', pages([] as never), 'on no page yet,'],
    ['one condition', audience([{}, anEarlier]), 'for visitors with an earlier session,'],
    ['its opposite', audience([{}, { ...anEarlier, not: true }]), 'for visitors without an earlier session,'],
    [
      'several conditions',
      audience([{}, anEarlier, { not: true, condition: { kind: 'signedIn', is: true } }]),
      'for visitors with an earlier session and without a sign-in,',
    ],
    [
      'the first session, and not',
      audience([{ match: 'any' }, inFirst, { ...inFirst, not: true }]),
      'for visitors in their first session or not in their first session,',
    ],
    ...(
      [
        ['atLeast', 'at least', 'fewer than'],
        ['atMost', 'at most', 'more than'],
        ['exactly', 'exactly', 'other than'],
      ] as const
    ).map(([comparison, is, isNot]): [string, Change, string] => {
      const condition = { kind: 'sessions' as const, comparison, count: 4 };
      return [
        `${is}, and not`,
        audience([{}, { not: false, condition }, { not: true, condition: { ...condition, kind: 'views' } }]),
        `for visitors with ${is} 4 sessions and with ${isNot} 4 page views in this session,`,
      ];
    }),
    ['every page among others', pages([{ kind: 'every' }, ...exact('/a')]), 'on every page and /a,'],
    [
      'a group turned round',
      audience([{ not: true, match: 'any' }, anEarlier, fromNorway]),
      'for all visitors but those with an earlier session or from Norway (no),',
    ],
    [
      'groups',
      audience([{}, anEarlier], [{ not: true }, fromNorway]),
      'for visitors (with an earlier session) and not (from Norway (no)),',
    ],
    ['one device', devices('mobile'), 'on phones only,'],
    ['two devices, in a fixed order', devices('tablet', 'desktop'), 'on desktops and tablets only,'],
    ['no device', devices(), 'on no device yet,'],
    ['no cap', limits({ caps: [] }), 'every time a page is opened.'],
    ['per visitor', limits({ caps: [{ max: 1, per: 'ever' }] }), 'once per visitor.'],
    ['every day', limits({ caps: [{ max: 1, per: { count: 1, unit: 'days' } }] }), 'once every day.'],
    [
      'every ten days',
      limits({ caps: [{ max: 1, per: { count: 10, unit: 'days' } }] }),
      'once every 10 days.',
    ],
    [
      'several caps',
      limits({
        caps: [
          { max: 1, per: 'session' },
          { max: 3, per: { count: 1, unit: 'weeks' } },
        ],
      }),
      'once per session and at most 3 times every week.',
    ],
    [
      'a pause of one hour',
      limits({ afterClose: { count: 1, unit: 'hours' } }),
      'After a close it stays away for 1 hour;',
    ],
    ['no pause', limits({ afterClose: 'none' }), 'After a close it may come again;'],
  ])('%s', (_part, change, words) => {
    expect(sentenceText(ruleSentence(change(base), names))).toContain(words);
  });
});

it('no two different rules have the same sentence', () => {
  /** What is no difference: the order of devices, and how a single trigger, condition or group is joined. */
  const plainly = (audience: Audience | null) =>
    audience && {
      match: audience.groups.length > 1 ? audience.match : 'all',
      groups: audience.groups.map((group) => ({
        ...group,
        match: group.items.length > 1 ? group.match : 'all',
      })),
    };
  const meaning = ({ format, anchor, closing, rule }: SentenceInput) =>
    JSON.stringify({
      format,
      anchor,
      closing,
      rule: {
        ...rule,
        moment: { ...rule.moment, join: rule.moment.triggers.length > 1 ? rule.moment.join : 'any' },
        reach: {
          ...rule.reach,
          devices: [...rule.reach.devices].sort(),
          audience: plainly(rule.reach.audience),
        },
      },
    });
  const seen = new Map<string, string>();
  fc.assert(
    fc.property(someSentenceInput, (input) => {
      const text = sentenceText(ruleSentence(input));
      const known = seen.get(text);
      if (known !== undefined) expect(known).toBe(meaning(input));
      seen.set(text, meaning(input));
    }),
    { numRuns: 5000 },
  );
});

it('every part of a rule has its phrase', () => {
  fc.assert(
    fc.property(someSentenceInput, (input) => {
      const parts = ruleSentence(input).flatMap(({ part }) => (part ? [part] : []));
      const { reach, limits } = input.rule;
      expect(parts).toEqual([
        ...['place', 'moment', 'pages', 'devices'],
        ...(reach.audience ? ['audience'] : []),
        ...(limits.schedule ? ['schedule'] : []),
        'caps',
        ...(limits.whenBusy === 'yield' ? ['busy'] : []),
        ...(limits.priority === 5 ? [] : ['priority']),
        ...(limits.withoutMemory === 'whenUncapped' ? [] : ['memory']),
        ...(limits.holdout > 0 || input.variants.length > 0 ? ['experiment'] : []),
        ...(input.closing.afterSeconds === null ? [] : ['closing']),
        ...(input.closing.means === 'no' ? ['closing'] : []),
        'afterClose',
        ...(limits.afterNo === 'none' ? [] : ['afterNo']),
        'afterConversion',
      ]);
    }),
  );
});
