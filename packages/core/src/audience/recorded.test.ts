import type { Audience, Condition } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  audienceShare,
  type RecordedVisit,
  type RecordedVisitor,
  reckonVisitors,
  seenValues,
} from './recorded.ts';

const visit: RecordedVisit = {
  startedAtMs: 1000,
  views: 1,
  number: 1,
  landing: '/',
  arrival: {},
  referrer: '',
  source: null,
  country: null,
  languages: ['en-gb', 'en'],
  browser: 'other',
  system: 'other',
  signedIn: null,
  basket: null,
  attributes: {},
};
const visitorOf = (...changes: Partial<RecordedVisit>[]): RecordedVisitor => ({
  visits: changes.map((change) => ({ ...visit, ...change })),
  first: () => ({}),
});
const audienceOf = (...conditions: Condition[]): Audience => ({
  match: 'all',
  groups: [{ not: false, match: 'all', items: conditions.map((condition) => ({ not: false, condition })) }],
});
const shareOf = (visitors: readonly RecordedVisitor[], ...conditions: Condition[]) =>
  audienceShare({ audience: audienceOf(...conditions), visitors, campaign: 'this' });

describe('how many visitors an audience would hold', () => {
  it.each<[what: string, condition: Condition, change: Partial<RecordedVisit>]>([
    ['a session after the first', { kind: 'visitor', is: 'returning' }, { number: 2 }],
    ['pages seen', { kind: 'views', comparison: 'atLeast', count: 3 }, { views: 3 }],
    ['where it came from', { kind: 'referrer', host: 'search.example' }, { referrer: 'www.search.example' }],
    ['kind of source', { kind: 'source', is: 'mail' }, { source: 'mail' }],
    ['a parameter', { kind: 'arrival', parameter: 'from', value: 'letter' }, { arrival: { from: 'letter' } }],
    ['the country', { kind: 'country', code: 'no' }, { country: 'no' }],
    ['the language', { kind: 'language', code: 'nb' }, { languages: ['nb'] }],
    ['signed in', { kind: 'signedIn', is: true }, { signedIn: true }],
    [
      'a basket',
      { kind: 'basketItems', comparison: 'atLeast', count: 1 },
      { basket: { items: 1, total: 9 } },
    ],
    ['an attribute', { kind: 'attribute', name: 'plan', value: 'gold' }, { attributes: { plan: 'gold' } }],
  ])('%s', (_what, condition, change) => {
    expect(shareOf([visitorOf({}), visitorOf(change)], condition)).toMatchObject({ inside: 1, of: 2 });
  });

  it('counts a visitor once, whose visits differ, and wants all of an audience in one visit', () => {
    const inTwoVisits = visitorOf({ number: 1, country: 'no' }, { number: 2, country: 'gb' });
    expect(shareOf([inTwoVisits], { kind: 'country', code: 'no' }).inside).toBe(1);
    const both: Condition[] = [
      { kind: 'country', code: 'no' },
      { kind: 'visitor', is: 'returning' },
    ];
    expect(shareOf([inTwoVisits], ...both).inside).toBe(0);
  });

  it('what came of a campaign counts from the next visit on', () => {
    const seenIn: RecordedVisitor = {
      ...visitorOf({}),
      first: (id) => (id === 'this' ? { seen: 1500 } : {}),
    };
    const asked: Condition = { kind: 'campaign', id: null, what: 'seen' };
    expect(shareOf([seenIn], asked).inside).toBe(0);
    const again = { ...seenIn, visits: [...seenIn.visits, { ...visit, startedAtMs: 2000 }] };
    expect(shareOf([again], asked).inside).toBe(1);
    // What was seen in the very instant in which a visit began was not seen before it.
    const atBegin = { ...seenIn, visits: [{ ...visit, startedAtMs: 1500 }] };
    expect(shareOf([atBegin], asked).inside).toBe(0);
  });

  it('says what no page told anything about, and nothing of what was told of anybody', () => {
    const basket: Condition = { kind: 'basketTotal', comparison: 'atLeast', amount: 50 };
    expect(shareOf([visitorOf({})], basket, { kind: 'visitor', is: 'new' }).unheard).toEqual(['basketTotal']);
    expect(shareOf([visitorOf({}), visitorOf({ basket: { items: 0, total: 0 } })], basket).unheard).toEqual(
      [],
    );
  });

  it('an attribute that any page told of is not unheard of', () => {
    const plan: Condition = { kind: 'attribute', name: 'plan', value: 'gold' };
    expect(shareOf([visitorOf({})], plan).unheard).toEqual(['attribute']);
    expect(shareOf([visitorOf({ attributes: { plan: 'silver' } })], plan).unheard).toEqual([]);
  });

  it('its interval is that of Wilson (Newcombe 1998, table I: 81 of 263)', () => {
    const visitors = Array.from({ length: 263 }, (_, n) => visitorOf({ number: n < 81 ? 2 : 1 }));
    const { low, high } = shareOf(visitors, { kind: 'visitor', is: 'returning' });
    expect([low, high].map((one) => one.toFixed(4))).toEqual(['0.2553', '0.3662']);
  });

  it('an audience and its opposite hold everybody of one visit together', () => {
    const someVisit = fc.record({
      number: fc.integer({ min: 1, max: 4 }),
      country: fc.constantFrom('no', 'gb', null),
    });
    fc.assert(
      fc.property(
        fc.array(someVisit, { minLength: 1 }),
        fc.constantFrom('no', 'unknown'),
        (changes, code) => {
          const visitors = changes.map((change) => visitorOf(change));
          const audience = audienceOf({ kind: 'country', code });
          const opposite = { ...audience, groups: audience.groups.map((group) => ({ ...group, not: true })) };
          const count = (of: Audience) => audienceShare({ audience: of, visitors, campaign: 'this' }).inside;
          expect(count(audience) + count(opposite)).toBe(visitors.length);
        },
      ),
    );
  });
});

it('values are listed by how many visitors had them, not by how often', () => {
  const seen = seenValues([
    visitorOf({ referrer: 'a.example' }, { referrer: 'a.example' }),
    visitorOf({ referrer: 'b.example', arrival: { from: 'x' } }),
    visitorOf({ referrer: 'b.example', attributes: { plan: 'gold' }, country: 'no' }),
  ]);
  expect(seen.referrers).toEqual([
    { value: 'b.example', visitors: 2 },
    { value: 'a.example', visitors: 1 },
  ]);
  expect(seen.landings).toEqual([{ value: '/', visitors: 3 }]);
  expect(seenValues([visitorOf({ landing: '' })]).landings).toEqual([]);
  expect(seen.parameters).toEqual([{ name: 'from', value: 'x', visitors: 1 }]);
  expect(seen.attributes).toEqual([{ name: 'plan', value: 'gold', visitors: 1 }]);
  expect(seen.countries).toEqual([
    { value: 'unknown', visitors: 2 },
    { value: 'no', visitors: 1 },
  ]);
});

it('what as many had is listed by its letters, and what many had is not pushed out by what came first', () => {
  const hosts = (...all: string[]) => all.map((referrer) => visitorOf({ referrer }));
  expect(
    seenValues(hosts('b.example', 'c.example', 'a.example')).referrers.map(({ value }) => value),
  ).toEqual(['a.example', 'b.example', 'c.example']);
  expect(seenValues(hosts('a.example', 'b.example', 'b.example'), 1).referrers).toEqual([
    { value: 'b.example', visitors: 2 },
  ]);
});

describe('how many visitors there are, reckoned from those of the smallest ids (Beyer et al. 2007)', () => {
  it('reads the id as a share of all ids', () => {
    expect(reckonVisitors(500, '80000000-0000-4000-8000-000000000000')).toBe(1000);
    expect(reckonVisitors(0, '00000000-0000-0000-0000-000000000000')).toBe(0);
  });
  it('is off by no more than four standard errors, 1 / sqrt(k - 2), on random ids', () => {
    const someIds = fc.uniqueArray(fc.integer({ min: 0, max: 2 ** 48 - 1 }), {
      minLength: 20_000,
      maxLength: 20_000,
      size: 'max',
    });
    const [ids = []] = fc.sample(fc.noBias(someIds), 1);
    const sorted = ids.map((id) => id.toString(16).padStart(12, '0')).sort();
    const known = 1000;
    const error = reckonVisitors(known, sorted[known] as string) / sorted.length - 1;
    expect(Math.abs(error)).toBeLessThan(4 / Math.sqrt(known - 1));
  });
});
