import type { Pages, SitePage } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { plainSettings } from '../testing/arbitrary.ts';
import { busiestPage, coveredPages } from './covered-pages.ts';
import { NO_SITE_PAGES } from './resolve-pages.ts';

const page = (path: string, views: number, kind: string | null = null): SitePage => ({
  path,
  title: path,
  kind,
  source: 'sitemap',
  views,
});
const known = [
  page('/', 100),
  page('/journal/a', 20, 'article'),
  page('/journal/b', 5, 'article'),
  page('/shop', 7),
];
const site = { settings: plainSettings, origins: ['https://quillonfell.example'], pages: NO_SITE_PAGES };
const coverOf = (rules: Partial<Pages>) =>
  coveredPages({ include: [], exclude: [], follows: null, ...rules }, known, site);

describe('pages a rule covers', () => {
  it.each<[what: string, rules: Partial<Pages>, paths: string[], views: number]>([
    ['all', { include: [{ kind: 'every' }] }, ['/', '/journal/a', '/journal/b', '/shop'], 132],
    ['a kind', { include: [{ kind: 'pageKind', name: 'article' }] }, ['/journal/a', '/journal/b'], 25],
    [
      'all but one',
      {
        include: [{ kind: 'begins', address: '/journal/' }],
        exclude: [{ kind: 'exact', address: '/journal/b' }],
      },
      ['/journal/a'],
      20,
    ],
    ['none', {}, [], 0],
    ['what only the page can tell', { include: [{ kind: 'holds', selector: 'main' }] }, [], 0],
  ])('%s', (_what, rules, paths, views) => {
    const { covered, views: sum, fitOf } = coverOf(rules);
    expect([covered.map(({ path }) => path), sum]).toEqual([paths, views]);
    expect(known.filter(({ path }) => fitOf(path) === 'fits')).toEqual(covered);
  });
  it('everywhere is everywhere only without exceptions', () => {
    expect(coverOf({ include: [{ kind: 'every' }] }).isEverywhere).toBe(true);
    expect(
      coverOf({ include: [{ kind: 'every' }], exclude: [{ kind: 'exact', address: '/' }] }).isEverywhere,
    ).toBe(false);
  });
});

it.each<[what: string, rules: Partial<Pages>, path: string]>([
  ['the covered page with most views', { include: [{ kind: 'begins', address: '/journal' }] }, '/journal/a'],
  ['a page that is named and not known', { include: [{ kind: 'exact', address: '/gone' }] }, '/gone'],
  ['the home page where nothing is', { include: [{ kind: 'contains', text: 'nowhere' }] }, '/'],
])('a campaign is met most on %s', (_, rules, path) => {
  expect(busiestPage(coverOf(rules).covered, { include: [], ...rules })).toBe(path);
});
