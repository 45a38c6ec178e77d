import type { PageRule, SitePage } from '@velarium/contract';
import fc from 'fast-check';
import { distance } from 'fastest-levenshtein';
import { describe, expect, it } from 'vitest';
import { NO_SITE_PAGES } from '../pages/resolve-pages.ts';
import { plainRule, plainSettings } from '../testing/arbitrary.ts';
import { elementsOf, lettersApart, unknownElements, unknownPages } from './unknown-pages.ts';

const known = ['/', '/tours/night', '/tours/day', '/journal/aurora', '/shop'].map(
  (path): SitePage => ({
    path,
    title: path,
    kind: path === '/shop' ? 'shop' : null,
    source: 'sitemap',
    views: 0,
  }),
);
const site = { settings: plainSettings, origins: ['https://s.example'], pages: NO_SITE_PAGES };
const of = (...include: PageRule[]) =>
  unknownPages({ include, exclude: [], follows: null }, known, site).map(({ text }) => text);

describe('page rules that cover no known page', () => {
  it.each<[rule: PageRule, words: string]>([
    [{ kind: 'exact', address: '/tours/nihgt' }, 'Is “/tours/night” meant?'],
    [{ kind: 'begins', address: '/tuors/' }, 'Is “/tours/” meant?'],
    [{ kind: 'exact', address: '/somewhere/else' }, 'Look at the address'],
    [
      { kind: 'wildcard', pattern: '/trips/*' },
      'None of the 5 known pages is among “addresses like /trips/*”',
    ],
    [{ kind: 'regex', pattern: '^/x' }, 'Look at the address'],
    [{ kind: 'contains', text: 'moon' }, 'Look at the address'],
    [{ kind: 'pageKind', name: 'recipe' }, 'Look at the address'],
    [{ kind: 'exact', address: 'https://other.example/shop' }, 'Look at the address'],
  ])('%j', (rule, words) => {
    expect(of(rule)).toEqual([expect.stringContaining(words)]);
    // Each by itself: another rule that covers something does not hide it.
    expect(of({ kind: 'exact', address: '/shop' }, rule)).toHaveLength(1);
  });
  it.each<[rule: PageRule]>([
    [{ kind: 'every' }],
    [{ kind: 'exact', address: '/shop/' }],
    [{ kind: 'begins', address: '/tours/' }],
    [{ kind: 'pageKind', name: 'shop' }],
    [{ kind: 'holds', selector: '.price' }],
    [{ kind: 'group', id: '10000000-0000-4000-8000-000000000009' }],
  ])('nothing is said of %j', (rule) => {
    expect(of(rule)).toEqual([]);
  });
  it('nor of a site of which no page is known', () => {
    const pages = { include: [{ kind: 'exact' as const, address: '/x' }], exclude: [], follows: null };
    expect(unknownPages(pages, [], site)).toEqual([]);
    expect(unknownPages(pages, known.slice(0, 1), site)[0]?.text).toContain('None of the one known page');
  });
  it('asks for what is three letters off at most, and less than half of it', () => {
    const meant = (address: string, paths: readonly string[]) =>
      unknownPages(
        { include: [{ kind: 'exact', address }], exclude: [], follows: null },
        paths.map((path) => ({ path, title: path, kind: null, source: 'sitemap' as const, views: 0 })),
        site,
      )[0]?.text.replace(/^.*?”\. /, '');
    const ask = (path: string) => `Is “${path}” meant?`;
    expect(meant('/membership', ['/membershipabc'])).toBe(ask('/membershipabc'));
    expect(meant('/membership', ['/membershipabcd'])).toMatch(/^Look/);
    expect(meant('/membership', ['/memberzzzz'])).toMatch(/^Look/);
    expect(meant('/membership', ['/membershzzz'])).toBe(ask('/membershzzz'));
    // Of six letters three are the half.
    expect(meant('/abcde', ['/abxyz'])).toBe(ask('/abxyz'));
    expect(meant('/abcd', ['/axyz'])).toMatch(/^Look/);
    expect(meant('/abcd', ['/abyz'])).toBe(ask('/abyz'));
    // The nearest of several.
    expect(meant('/contact', ['/contbbb', '/contacts', '/contaxx'])).toBe(ask('/contacts'));
    expect(meant('https://s.example/contact', ['/contacts'])).toMatch(/^Look/);
    // A folder is told by folders, a page by pages.
    expect(meant('/tour/', ['/tours/night', '/tours'])).toBe(ask('/tours/'));
    expect(meant('/tour', ['/tours/night', '/tours'])).toBe(ask('/tours'));
  });
  it('of what only a page can hold nothing is taken for known', () => {
    const held: PageRule = { kind: 'exact', address: '/gone' };
    const pages = { include: [held], exclude: [{ kind: 'holds' as const, selector: '.x' }], follows: null };
    expect(unknownPages(pages, known, site)).toHaveLength(1);
  });
  it('letters apart, as a reference implementation counts them', () => {
    const word = fc.string({ maxLength: 12 }).filter((text) => /^[ -~]*$/.test(text));
    fc.assert(
      fc.property(word, word, (a, b) => lettersApart(a, b) === distance(a, b)),
      { numRuns: 2000 },
    );
  });
});

describe('elements that no page has', () => {
  const rule = {
    ...plainRule,
    moment: {
      ...plainRule.moment,
      triggers: [
        { kind: 'interact' as const, what: 'hover' as const, selector: '.open' },
        { kind: 'element' as const, selector: '.open' },
        { kind: 'time' as const, seconds: 1 },
      ],
    },
    reach: {
      ...plainRule.reach,
      pages: {
        include: [{ kind: 'holds' as const, selector: '.price' }],
        exclude: [{ kind: 'holds' as const, selector: '.sold' }],
        follows: null,
      },
    },
  };
  it('are those a rule speaks of, each once', () => {
    expect(elementsOf(rule)).toEqual(['.open', '.price', '.sold']);
    expect(elementsOf(plainRule)).toEqual([]);
  });
  it.each([
    [0, 8, 'None of the 8 pages that were looked at has an element “.open”'],
    [0, 1, 'The page that was looked at has no element “.open”'],
  ])('on %i of %i pages', (pages, looked, words) => {
    expect(
      unknownElements([
        { selector: '.open', pages: Array.from({ length: pages }, (_, n) => `/${n}`), of: looked },
      ])[0]?.text,
    ).toContain(words);
  });
  it.each([
    [1, 8],
    [0, 0],
  ])('nothing is said of %i of %i', (pages, looked) => {
    expect(
      unknownElements([
        { selector: '.open', pages: Array.from({ length: pages }, (_, n) => `/${n}`), of: looked },
      ]),
    ).toEqual([]);
  });
});
