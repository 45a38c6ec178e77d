import type { Audience, Condition } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { failingConditions, isInAudience, type VisitorFacts } from './audience.ts';
import { type Came, sourceOf } from './source.ts';

const facts: VisitorFacts = {
  sessions: 3,
  viewsInSession: 2,
  signedIn: null,
  referrer: '',
  arrival: {},
  landing: '/journal',
  source: null,
  languages: ['en-gb', 'en'],
  country: null,
  browser: 'other',
  system: 'other',
  basket: null,
  attributes: {},
  history: () => ({ seen: false, closed: false, converted: false }),
};
const audienceOf = (condition: Condition, not = false): Audience => ({
  match: 'all',
  groups: [{ not: false, match: 'all', items: [{ not, condition }] }],
});

describe('conditions', () => {
  it.each<[rule: string, condition: Condition, change: Partial<VisitorFacts>, expected: boolean]>([
    [
      'an attribute of another value',
      { kind: 'attribute', name: 'plan', value: 'friend' },
      { attributes: { plan: 'gold' } },
      false,
    ],
    [
      'an attribute that every object has',
      { kind: 'attribute', name: 'constructor', value: 'friend' },
      {},
      false,
    ],
    ['a third session is a returning visitor', { kind: 'visitor', is: 'returning' }, {}, true],
    ['a first session is a new one', { kind: 'visitor', is: 'new' }, { sessions: 1 }, true],
    ['from the third session on', { kind: 'sessions', comparison: 'atLeast', count: 3 }, {}, true],
    ['not signed in is not the same as not known', { kind: 'signedIn', is: false }, {}, false],
    ['not signed in, as the page tells', { kind: 'signedIn', is: false }, { signedIn: false }, true],
    [
      'a partner’s host',
      { kind: 'referrer', host: 'partner.example' },
      { referrer: 'www.partner.example' },
      true,
    ],
    [
      'not a host that merely ends so',
      { kind: 'referrer', host: 'partner.example' },
      { referrer: 'notpartner.example' },
      false,
    ],
    [
      'a campaign parameter',
      { kind: 'arrival', parameter: 'utm_campaign', value: 'winter' },
      { arrival: { utm_campaign: 'winter' } },
      true,
    ],
    [
      'a parameter no object has by itself',
      { kind: 'arrival', parameter: 'constructor', value: '' },
      {},
      false,
    ],
    ['a language and its regions', { kind: 'language', code: 'en' }, {}, true],
    ['not another region', { kind: 'language', code: 'en-us' }, {}, false],
    ['an unknown country is a value', { kind: 'country', code: 'unknown' }, {}, true],
    [
      'a basket of three',
      { kind: 'basketItems', comparison: 'atLeast', count: 3 },
      { basket: { items: 3, total: 61 } },
      true,
    ],
    [
      'worth sixty',
      { kind: 'basketTotal', comparison: 'atLeast', amount: 60 },
      { basket: { items: 3, total: 59.99 } },
      false,
    ],
    [
      'without a basket neither more nor less',
      { kind: 'basketItems', comparison: 'atMost', count: 3 },
      {},
      false,
    ],
    [
      'an attribute',
      { kind: 'attribute', name: 'plan', value: 'friend' },
      { attributes: { plan: 'friend' } },
      true,
    ],
    [
      'has converted on this campaign',
      { kind: 'campaign', id: null, what: 'converted' },
      { history: (id) => ({ seen: true, closed: false, converted: id === 'this' }) },
      true,
    ],
  ])('%s', (_rule, condition, change, expected) => {
    expect(isInAudience(audienceOf(condition), { ...facts, ...change }, 'this')).toBe(expected);
    expect(isInAudience(audienceOf(condition, true), { ...facts, ...change }, 'this')).toBe(!expected);
  });
});

describe('where a session came from', () => {
  const came: Came = { referrer: '', kind: null, medium: '', name: '' };
  it.each<[what: string, change: Partial<Came>, source: string]>([
    ['nowhere known', {}, 'direct'],
    ['a host known for searching', { referrer: 's.example', kind: 'search' }, 'search'],
    ['a host known for mail', { referrer: 'm.example', kind: 'mail' }, 'mail'],
    ['a link marked as a newsletter’s', { medium: 'E-Mail' }, 'mail'],
    ['as social, from a search', { medium: 'social', referrer: 's.example', kind: 'search' }, 'social'],
    ['as a paid search', { medium: 'CPC' }, 'search'],
    ['a paid click on a social site', { medium: 'cpc', referrer: 'x.example', kind: 'social' }, 'social'],
    ['a word that only holds another', { medium: 'blackmail', referrer: 'p.example' }, 'site'],
    ['antisocial is not social', { medium: 'antisocial', referrer: 'p.example' }, 'site'],
    ['any other site', { referrer: 'partner.example' }, 'site'],
    ['a link that names where it stands', { name: 'partner' }, 'site'],
    ['a medium nobody knows', { medium: 'qr' }, 'site'],
  ])('%s', (_what, change, source) => {
    expect(sourceOf({ ...came, ...change })).toBe(source);
  });
});

it('groups obey the algebra of all, any and not', () => {
  const truth: Condition = { kind: 'country', code: 'unknown' };
  const lie: Condition = { kind: 'country', code: 'gb' };
  const someItem = fc.record({ not: fc.boolean(), isTrue: fc.boolean() });
  const someGroup = fc.record({
    not: fc.boolean(),
    match: fc.constantFrom('all' as const, 'any' as const),
    items: fc.array(someItem, { minLength: 1, maxLength: 4 }),
  });
  fc.assert(
    fc.property(
      fc.constantFrom('all' as const, 'any' as const),
      fc.array(someGroup, { minLength: 1, maxLength: 4 }),
      (match, groups) => {
        const audience = (isFlipped: boolean): Audience => {
          // De Morgan: not(all of) is any of (not).
          const other = { all: 'any', any: 'all' } as const;
          return {
            match: isFlipped ? other[match] : match,
            groups: groups.map((group) => ({
              not: group.not,
              match: isFlipped ? other[group.match] : group.match,
              items: group.items.map(({ not, isTrue }) => ({
                not: not !== isFlipped,
                condition: isTrue ? truth : lie,
              })),
            })),
          };
        };
        expect(isInAudience(audience(true), facts, 'this')).toBe(
          !isInAudience(audience(false), facts, 'this'),
        );
      },
    ),
  );
});

it('everybody is in no audience at all', () => {
  expect(isInAudience(null, facts, 'this')).toBe(true);
});

describe('what keeps a visitor out of an audience', () => {
  type Group = Audience['groups'][number];
  const returning = { not: false, condition: { kind: 'visitor', is: 'returning' } } as const;
  const signedIn = { not: false, condition: { kind: 'signedIn', is: true } } as const;
  const fresh = { not: false, condition: { kind: 'visitor', is: 'new' } } as const;
  const group = (items: Group['items'], change: Partial<Group> = {}): Group => ({
    not: false,
    match: 'all',
    items,
    ...change,
  });
  it.each<[what: string, groups: Group[], failing: Group['items']]>([
    ['the one that fails', [group([returning, signedIn])], [signedIn]],
    ['all where any would do', [group([fresh, signedIn], { match: 'any' })], [fresh, signedIn]],
    ['what must not be and is', [group([{ ...returning, not: true }])], [{ ...returning, not: true }]],
    [
      'what a group that must not hold holds by',
      [group([returning], { not: true })],
      [{ ...returning, not: true }],
    ],
    ['nothing of a group that does its part', [group([returning]), group([signedIn])], [signedIn]],
  ])('%s', (_, groups, failing) => {
    expect(failingConditions({ match: 'all', groups }, facts, 'c')).toEqual(failing);
  });
});
