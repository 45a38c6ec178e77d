import { rehearsalSchema, type Traffic, type TrafficVisitor } from '@velarium/contract';
import { BROWSERS, DEVICES, SOURCES, SYSTEMS } from '@velarium/contract/values';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { recordedWords, rehearsalOfRecorded } from './recorded.ts';

const MANIFEST = { timeZone: 'Europe/London', campaigns: [] };
const EVENING_MS = Date.parse('2026-11-24T20:14Z');
const someVisitor: fc.Arbitrary<TrafficVisitor> = fc.record({
  device: fc.constantFrom(...DEVICES),
  browser: fc.constantFrom(...BROWSERS),
  system: fc.constantFrom(...SYSTEMS),
  source: fc.constantFrom(...SOURCES),
  referrer: fc.constantFrom('', 'partner.example'),
  session: fc.integer({ min: 1, max: 5000 }),
  signedIn: fc.constantFrom(null, true, false),
  basket: fc.constantFrom(null, { items: 2, total: 60 }),
  country: fc.constantFrom(null, 'gb'),
  language: fc.constantFrom('en', 'en-GB', 'zh-Hant', 'C', ''),
  pages: fc.array(
    fc.record({
      path: fc.constantFrom('/', '/about?x=1', '/shop'),
      atMs: fc.integer({ min: EVENING_MS, max: EVENING_MS + 9e8 }),
      seconds: fc.option(fc.double({ min: 0, max: 9000, noNaN: true })),
      depth: fc.option(fc.integer({ min: 0, max: 160 })),
    }),
    { minLength: 1, maxLength: 50 },
  ),
});
const traffic = (...list: TrafficVisitor[]): Traffic => ({
  days: 28,
  visitors: list.length,
  isSample: false,
  list,
});

describe('a recorded visit', () => {
  it('is one that can be kept and played, whoever it was of', () => {
    fc.assert(
      fc.property(fc.array(someVisitor, { minLength: 1, maxLength: 3 }), (list) => {
        list.forEach((_, nth) => {
          const made = rehearsalOfRecorded(traffic(...list), nth, MANIFEST);
          expect(rehearsalSchema.parse(made)).toEqual(made);
        });
      }),
    );
  });

  const visitor: TrafficVisitor = {
    device: 'mobile',
    browser: 'chromium',
    system: 'android',
    source: 'search',
    referrer: 's.example',
    session: 3,
    signedIn: true,
    basket: null,
    country: 'gb',
    language: 'en-GB',
    pages: [
      { path: '/a', atMs: EVENING_MS, seconds: 40.26, depth: 130 },
      { path: '/b', atMs: EVENING_MS + 100_260, seconds: null, depth: null },
    ],
  };

  it('has on its line what was recorded, and nothing that was not', () => {
    expect(rehearsalOfRecorded(traffic(visitor), 0, MANIFEST)).toEqual({
      form: 1,
      visitor: {
        device: 'mobile',
        browser: 'chromium',
        system: 'android',
        source: 'search',
        referrer: 's.example',
        session: 3,
        signedIn: true,
        basket: null,
        country: 'gb',
        language: 'en-gb',
        begins: '2026-11-24T20:14',
        met: [],
      },
      pages: [
        // No more than the whole of a page is read, and that is its end.
        {
          path: '/a',
          seconds: 40.3,
          depth: 100,
          afterMinutes: 0,
          happenings: [{ at: expect.any(Number), what: 'articleEnd' }],
        },
        { path: '/b', seconds: 20, depth: 50, afterMinutes: 1, happenings: [] },
      ],
      reactions: [],
      expectations: [],
    });
    expect(rehearsalOfRecorded(traffic(visitor), 1, MANIFEST)).toBeUndefined();
  });

  it('is told of in a line', () => {
    const words = (...pages: TrafficVisitor['pages']) => recordedWords({ ...visitor, pages }, () => 'Then');
    const page = { path: '/', atMs: 0, seconds: 40, depth: 0 };
    expect(words(...visitor.pages)).toBe(
      'Then: on a phone, by an arrival from search, 2 pages in 0:40 or more',
    );
    expect(words(page)).toBe('Then: on a phone, by an arrival from search, 1 page in 0:40');
    expect(words({ ...page, seconds: null })).toBe('Then: on a phone, by an arrival from search, 1 page');
  });
});
