import type { Condition, Device, PageRule, Rule } from '@velarium/contract';
import { manifestSchema } from '@velarium/contract';
import { DEVICES } from '@velarium/contract/values';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createAddressTrial } from '../pages/address-trial.ts';
import { createKeyReader } from '../pages/page-key.ts';
import { followsInCircle, resolvePages, type SitePages } from '../pages/resolve-pages.ts';
import {
  CAMPAIGN_IDS,
  GROUP_IDS,
  plainMessage,
  plainRule,
  plainSettings,
  someHref,
  someRule,
} from '../testing/arbitrary.ts';
import { campaignId, compileRules } from '../testing/compile-rules.ts';
import { isNowhere } from '../visit/explain.ts';
import { EXTRAS as COMMON } from '../visit/extras.ts';
import { RARE } from '../visit/rare.ts';
import { compileManifest } from './compile.ts';
import { fitOf } from './page-fit.ts';
import { createPageIndex } from './page-index.ts';

/** More cases on request: `VELARIUM_CASES=100000 npx vitest run packages/core`. */
const CASES = Number(process.env.VELARIUM_CASES ?? 10_000);

const keys = createKeyReader(plainSettings);
const id = campaignId;
/** Two groups and two campaigns to follow; the second campaign follows the first. */
const GROUPS: Readonly<Record<string, PageRule[]>> = {
  [GROUP_IDS[0] as string]: [{ kind: 'exact', address: '/a' }],
  [GROUP_IDS[1] as string]: [
    { kind: 'begins', address: '/b/' },
    { kind: 'contains', text: 'caf' },
  ],
};
const FOLLOWED: Readonly<Record<string, Rule['reach']['pages']>> = {
  [CAMPAIGN_IDS[0] as string]: {
    include: [{ kind: 'exact', address: '/b' }],
    exclude: [{ kind: 'group', id: GROUP_IDS[0] as string }],
    follows: null,
  },
  [CAMPAIGN_IDS[1] as string]: { include: [], exclude: [], follows: CAMPAIGN_IDS[0] as string },
};
const pages: SitePages = {
  rulesOfGroup: (group) => GROUPS[group],
  pagesOfCampaign: (campaign) => FOLLOWED[campaign],
};
const compile = (rules: readonly Rule[]) => compileRules(rules, pages);
const facts = { kind: 'and', holds: (selector: string) => selector === '.price' };

/** The law as it is written, read slowly: exclusion wins, and no include rule at all is nowhere. */
function plainReading({ reach }: Rule, href: string, device: Device): boolean {
  const here = keys(href);
  const among = (page: PageRule): boolean => {
    const mine = (address: string) => (keys(address).full === null ? here.path : (here.full ?? ''));
    const theirs = (address: string) => keys(address).full ?? keys(address).path;
    switch (page.kind) {
      case 'every':
        return true;
      case 'exact':
        return theirs(page.address) === mine(page.address);
      case 'begins': {
        const folder = /[^:/]\/+([?#]|$)/.test(page.address);
        const [begin = '', asked] = theirs(page.address).split('?');
        const start =
          (folder ? begin.replace(/\/?$/, '/') : begin) + (asked === undefined ? '' : `?${asked}`);
        const [path = '', query] = mine(page.address).split('?');
        const slashed = (path.endsWith('/') ? path : `${path}/`) + (query === undefined ? '' : `?${query}`);
        return mine(page.address).startsWith(start) || slashed.startsWith(start);
      }
      case 'contains':
        return (here.full ?? here.path).includes(page.text);
      case 'wildcard': {
        const escaped = theirs(page.pattern).replace(/[.+?^${}()|[\]\\]/g, '\\$&');
        const source = escaped.replace(/\*\*|\*/g, (mark) => (mark === '*' ? '[^/?]*' : '[^]*'));
        return new RegExp(`^${source}$`).test(mine(page.pattern));
      }
      case 'regex':
        return new RegExp(page.pattern).test(here.path);
      case 'pageKind':
        return facts.kind === page.name;
      case 'parameter': {
        const value = new URLSearchParams(here.path.split('?')[1] ?? '').get(page.name);
        return value !== null && (page.value === null || page.value === value);
      }
      case 'holds':
        return facts.holds(page.selector);
      case 'group':
        return (GROUPS[page.id] ?? []).some(among);
    }
  };
  /** Its own rules and those of whom it follows, as far as that leads. */
  const rulesOf = (side: 'include' | 'exclude', from = reach.pages): PageRule[] => [
    ...from[side],
    ...(from.follows && FOLLOWED[from.follows] ? rulesOf(side, FOLLOWED[from.follows]) : []),
  ];
  return rulesOf('include').some(among) && !rulesOf('exclude').some(among) && reach.devices.includes(device);
}

it('the compiled manifest lets through exactly what the rules say', () => {
  fc.assert(
    fc.property(
      fc.array(someRule, { maxLength: 4 }),
      someHref,
      fc.constantFrom(...DEVICES),
      (rules, href, device) => {
        const index = createPageIndex(compile(rules), EXTRAS);
        const expected = rules.flatMap((rule, n) => (plainReading(rule, href, device) ? [id(n)] : []));
        expect(index.candidates(href, facts, device).map((campaign) => campaign.id)).toEqual(expected);
      },
    ),
    { numRuns: CASES },
  );
}, 60_000);

it('trying an address rule by rule comes to the same', () => {
  const site = { settings: plainSettings, pages };
  fc.assert(
    fc.property(someRule, someHref, (rule, href) => {
      const trial = createAddressTrial(rule.reach.pages, site)(href, facts);
      const manifest = compile([rule]);
      const [fit] = createPageIndex(manifest, EXTRAS).read(href, facts).map(fitOf);
      expect(trial.fit).toBe(manifest.campaigns.some(isNowhere) ? 'nowhere' : fit);
      if (trial.fit === 'fits') expect(trial.includedBy.length > 0 || trial.includedByFollowed).toBe(true);
    }),
    { numRuns: CASES },
  );
});

it('what it compiles keeps to the contract', () => {
  fc.assert(
    fc.property(fc.array(someRule, { maxLength: 4 }), (rules) => {
      expect(manifestSchema.parse(compile(rules))).toBeTruthy();
    }),
  );
});

it('exclusion wins over any inclusion, whatever the kinds and the order', () => {
  fc.assert(
    fc.property(someRule, someHref, fc.constantFrom(...DEVICES), (rule, href, device) => {
      const { include } = rule.reach.pages;
      const both: Rule = {
        ...rule,
        reach: { ...rule.reach, pages: { include, exclude: [...include].reverse(), follows: null } },
      };
      expect(createPageIndex(compile([both]), EXTRAS).candidates(href, facts, device)).toEqual([]);
    }),
  );
});

it('says why a page does not fit', () => {
  const page = (address: string): PageRule => ({ kind: 'exact', address });
  const rule = (include: PageRule[], exclude: PageRule[]): Rule => ({
    ...plainRule,
    reach: { ...plainRule.reach, pages: { include, exclude, follows: null } },
  });
  const manifest = compile([
    rule([], []),
    rule([page('/b')], []),
    rule([{ kind: 'every' }], [page('/a/')]),
    rule([page('/a')], [{ kind: 'every' }]),
    rule([page('/a?utm_source=x')], []),
  ]);
  const fits = createPageIndex(manifest, EXTRAS).read('https://s.example/a#top', facts).map(fitOf);
  expect(manifest.campaigns.map((one, n) => (isNowhere(one) ? 'nowhere' : fits[n]))).toEqual([
    'nowhere',
    'unmatched',
    'excluded',
    'nowhere',
    'fits',
  ]);
});

it.each([
  ['/journal/', '/journal', true],
  ['/journal/', '/journal/aurora', true],
  ['/journal/', '/journalism', false],
  ['/journal', '/journalism', true],
  ['/journal/', '/journal?page=2', true],
  ['https://s.example/', 'https://s.example', true],
])('addresses that begin with %s and %s: %s', (address, path, expected) => {
  const rule: Rule = {
    ...plainRule,
    reach: {
      ...plainRule.reach,
      pages: { include: [{ kind: 'begins', address }], exclude: [], follows: null },
    },
  };
  const href = path.startsWith('/') ? `https://s.example${path}` : path;
  expect(createPageIndex(compile([rule]), EXTRAS).candidates(href, facts, 'desktop')).toHaveLength(
    expected ? 1 : 0,
  );
});

/** Both parts, as a tag has them that asks for both. */
const EXTRAS = { ...COMMON, ...RARE };

describe('following another campaign’s pages', () => {
  const [a, b, c] = ['a', 'b', 'c'];
  const following = (pagesOf: Record<string, string | null>): SitePages => ({
    rulesOfGroup: () => undefined,
    pagesOfCampaign: (one) =>
      one in pagesOf
        ? { include: [{ kind: 'exact', address: `/${one}` }], exclude: [], follows: pagesOf[one] ?? null }
        : undefined,
  });

  it('takes over what the followed one follows, and what is gone adds nothing', () => {
    const site = following({ a: 'b', b: 'gone' });
    expect(resolvePages({ include: [], exclude: [], follows: a }, site).include).toEqual([
      { kind: 'exact', address: '/a' },
      { kind: 'exact', address: '/b' },
    ]);
  });

  it('a circle ends', () => {
    const site = following({ a: 'b', b: 'a' });
    expect(resolvePages({ include: [], exclude: [], follows: a }, site).include).toHaveLength(2);
  });

  it.each<[from: string, to: string | null, isCircle: boolean]>([
    [a, null, false],
    [a, b, false],
    [c, a, true],
    [a, a, true],
  ])('%s following %s leads back to it: %s', (from, to, isCircle) => {
    expect(followsInCircle(from, to, following({ a: 'b', b: 'c', c: null }))).toBe(isCircle);
  });
});

describe('what a site’s pages must load', () => {
  const change = (limits: Partial<Rule['limits']>, audience: Rule['reach']['audience'] = null): Rule => ({
    ...plainRule,
    reach: { ...plainRule.reach, audience },
    limits: { ...plainRule.limits, ...limits },
  });
  const asking = (condition: Condition): Rule['reach']['audience'] => ({
    match: 'all',
    groups: [{ not: false, match: 'all', items: [{ not: false, condition }] }],
  });
  it.each<[what: string, rule: Rule, parts: string[], asksEdge: boolean]>([
    ['time, every page and caps', plainRule, [], false],
    ['an audience', change({}, asking({ kind: 'visitor', is: 'new' })), ['extras'], false],
    ['a country', change({}, asking({ kind: 'country', code: 'gb' })), ['extras'], true],
    ['a kind of browser', change({}, asking({ kind: 'browser', is: 'gecko' })), ['extras', 'rare'], false],
    ['a holdout', change({ holdout: 10 }), ['rare'], false],
  ])('%s', (_what, rule, parts, asksEdge) => {
    expect(compile([rule])).toMatchObject({ parts, asksEdge });
  });

  it.each<[what: string, limits: Partial<Rule['limits']>, isForgetful: boolean]>([
    ['a campaign without any cap', { afterClose: 'none', afterConversion: 'none' }, true],
    ['a pause after a close', { afterClose: 'session', afterConversion: 'none' }, false],
    ['a pause after a no', { afterClose: 'none', afterConversion: 'none', afterNo: 'ever' }, false],
    ['a cap', { afterClose: 'none', afterConversion: 'none', caps: [{ max: 1, per: 'ever' }] }, false],
    ['capped, but it says it may', { withoutMemory: 'always' }, true],
    [
      'uncapped, but it says it may not',
      { afterClose: 'none', afterConversion: 'none', withoutMemory: 'never' },
      false,
    ],
  ])('%s: may show where nothing is remembered: %s', (_what, limits, isForgetful) => {
    expect(compile([change(limits)]).campaigns[0]?.isForgetful).toBe(isForgetful);
  });
});

it('a text that wants what the page tells of its visitor needs the part that hears it, and no other', () => {
  const of = (asksFacts: boolean) =>
    compileManifest({ settings: plainSettings, timeZone: 'UTC', pages }, [
      {
        id: id(0),
        version: 1,
        messageHash: 'f'.repeat(32),
        messages: [plainMessage],
        rule: plainRule,
        epoch: 0,
        asksFacts,
        variants: [],
      },
    ]).parts;
  expect([of(false), of(true)]).toEqual([[], ['extras']]);
});

it('goals that events reach are told to the tag, with the parts it needs for them; others are not', () => {
  const event = { name: 'bought', condition: null, worth: { from: 'basket' as const } };
  const of = (goals: Parameters<typeof compileManifest>[0]['goals']) =>
    compileManifest({ settings: plainSettings, timeZone: 'UTC', pages, ...(goals && { goals }) }, []);
  expect(of([{ id: id(1), deed: { kind: 'event', ...event } }])).toMatchObject({
    goals: [{ id: id(1), ...event }],
    parts: ['extras', 'rare'],
  });
  const others = of([{ id: id(1), deed: { kind: 'answer' } }]);
  expect(others).not.toHaveProperty('goals');
  expect(others.parts).toEqual([]);
});
