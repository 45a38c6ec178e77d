import type { Site, SitePage } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { NO_SITE_PAGES } from '../pages/resolve-pages.ts';
import { plainRule, plainSettings } from '../testing/arbitrary.ts';
import { agoWords } from './ago-words.ts';
import { type HealthInput, siteHealth } from './site-health.ts';

const NOW = Date.UTC(2026, 10, 26, 12);
const ago = (ms: number) => new Date(NOW - ms).toISOString();
const site: Site = {
  id: '10000000-0000-4000-8000-000000000001',
  key: 'quillonfell2',
  name: 'Quillon Fell',
  origins: ['https://quillonfell.example'],
  timeZone: 'Europe/London',
  settings: plainSettings,
  lastSeenAt: ago(60_000),
};
const page = (path: string, views = 1): SitePage => ({
  path,
  title: path,
  kind: null,
  source: 'sitemap',
  views,
});
const everywhere = {
  ...plainRule,
  reach: { ...plainRule.reach, pages: { include: [{ kind: 'every' as const }], exclude: [], follows: null } },
};
const well: HealthInput = {
  site,
  known: [page('/'), page('/tours')],
  pages: NO_SITE_PAGES,
  viewsByDay: [100, 110, 90, 100, 105],
  campaigns: [{ name: 'Letter', state: 'running', rule: everywhere }],
  knowsCountries: true,
  policies: null,
  loadsLetters: false,
  edge: 'https://edge.example',
  manifestsRun: { calls: 0, outdated: 0, oldest: null },
  seen: [],
  nowMs: NOW,
};
const asksCountry = {
  ...everywhere,
  reach: {
    ...everywhere.reach,
    audience: {
      match: 'all' as const,
      groups: [
        {
          not: false,
          match: 'all' as const,
          items: [{ not: false, condition: { kind: 'country' as const, code: 'no' } }],
        },
      ],
    },
  },
};
const onlyTours = {
  ...plainRule,
  reach: {
    ...plainRule.reach,
    pages: { include: [{ kind: 'exact' as const, address: '/gone' }], exclude: [], follows: null },
  },
};

describe('a site’s health', () => {
  it('tells the most serious first', () => {
    const signs = siteHealth({ ...well, site: { ...site, lastSeenAt: null }, viewsByDay: [] });
    const rank = { wrong: 0, look: 1, good: 2 };
    const ranks = signs.map(({ state }) => rank[state]);
    expect(ranks).toEqual([...ranks].sort());
    expect(new Set(ranks).size).toBeGreaterThan(1);
  });
  it('is well when all is', () => {
    expect(siteHealth(well).map(({ code, state }) => [code, state])).toEqual([
      ['tag', 'good'],
      ['pages', 'good'],
      ['traffic', 'good'],
      ['cover', 'good'],
    ]);
  });

  it('is well with a policy that lets the tag work, and none is no sign', () => {
    const under = (...policies: string[]) => siteHealth({ ...well, policies });
    expect(under('default-src https:').find(({ code }) => code === 'policy')?.state).toBe('good');
    expect(under().some(({ code }) => code === 'policy')).toBe(false);
  });

  it('a policy that forbids letters matters where a Look loads some, and to the letters alone', () => {
    const policies = ["default-src https:; font-src 'self'"];
    const under = (loadsLetters: boolean) =>
      siteHealth({ ...well, policies, loadsLetters }).find(({ code }) => code === 'policy');
    expect(under(false)?.state).toBe('good');
    expect(under(true)).toMatchObject({ state: 'look', mend: expect.stringContaining('next family') });
    const none = siteHealth({ ...well, policies: ["default-src 'self'"], loadsLetters: true });
    expect(none.find(({ code }) => code === 'policy')).toMatchObject({
      state: 'wrong',
      text: expect.stringContaining('img-src and font-src leave'),
    });
  });

  it.each([
    ['none', 100, 0],
    ['a few tabs that were open all night', 100, 4],
    ['few of many', 1000, 49],
  ])('is well with pages that run old rules: %s', (_, calls, outdated) => {
    const run = { calls, outdated, oldest: ago(86_400_000) };
    const sign = siteHealth({ ...well, manifestsRun: run }).find(({ code }) => code === 'manifest');
    expect(sign).toMatchObject({ state: 'good', mend: '' });
  });

  it.each([
    ['one link', site, 1],
    ['a site that tells them apart', { ...site, settings: { ...plainSettings, hashRoutes: true } }, 7],
  ])('proposes no routes for %s', (_, ofSite, routes) => {
    const signs = siteHealth({ ...well, site: ofSite, seen: [{ path: '/', at: ago(0), routes }] });
    expect(signs.some(({ code }) => code === 'routes')).toBe(false);
  });

  it('says what a worker that keeps things must leave alone', () => {
    const run = { calls: 10, outdated: 10, oldest: ago(86_400_000) };
    const sign = siteHealth({ ...well, manifestsRun: run }).find(({ code }) => code === 'manifest');
    expect(sign?.lines).toContain("origin === 'https://edge.example') return;");
  });

  it.each<[what: string, change: Partial<HealthInput>, code: string, state: string, words: RegExp]>([
    [
      'a policy without the tag',
      { policies: ["default-src 'self'; script-src *"] },
      'policy',
      'wrong',
      /connect-src and img-src leave https:\/\/edge\.example out/,
    ],
    [
      'pages that run old rules',
      { manifestsRun: { calls: 100, outdated: 5, oldest: ago(2 * 86_400_000) } },
      'manifest',
      'wrong',
      /Of 100 page views since yesterday 5 ran rules that have been replaced, the oldest made 2 days ago/,
    ],
    [
      'routes that nobody tells apart',
      { seen: [{ path: '/guide', at: ago(0), routes: 7 }] },
      'routes',
      'look',
      /\/guide leads to 7 addresses behind a #/,
    ],
    ['a tag never heard', { site: { ...site, lastSeenAt: null } }, 'tag', 'wrong', /never heard/],
    [
      'one that went quiet',
      { site: { ...site, lastSeenAt: ago(3 * 86_400_000) } },
      'tag',
      'wrong',
      /3 days ago/,
    ],
    [
      'pages nobody has been to',
      { known: ['/', '/a', '/b', '/c', '/d'].map((path, n) => page(path, n === 0 ? 1 : 0)) },
      'pages',
      'look',
      /1 of 5 pages/,
    ],
    ['a site without pages', { known: [] }, 'pages', 'look', /No page/],
    [
      'a day with a third of the usual or less',
      { viewsByDay: [100, 100, 100, 100, 29] },
      'traffic',
      'look',
      /29 page views; 100 are usual/,
    ],
    [
      'a rule on a page that is gone',
      { campaigns: [{ name: 'Old', state: 'running', rule: onlyTours }] },
      'cover',
      'look',
      /“Old” covers no page/,
    ],
    [
      'a page without encryption',
      { site: { ...site, origins: ['http://quillonfell.example'] } },
      'origin',
      'look',
      /not encrypted/,
    ],
    [
      'a country nobody tells',
      { campaigns: [{ name: 'North', state: 'running', rule: asksCountry }], knowsCountries: false },
      'country',
      'wrong',
      /“North” asks/,
    ],
  ])('%s', (_what, change, code, state, words) => {
    const sign = siteHealth({ ...well, ...change }).find((one) => one.code === code);
    expect(sign?.state).toBe(state);
    expect(sign?.text).toMatch(words);
    expect(sign?.mend).not.toBe('');
  });

  const state = (change: Partial<HealthInput>, code: string) =>
    siteHealth({ ...well, ...change }).find((one) => one.code === code);
  it('is quiet after a day, and not a moment sooner', () => {
    const heard = (ms: number) => state({ site: { ...site, lastSeenAt: ago(ms) } }, 'tag')?.state;
    expect([heard(86_400_000), heard(86_400_001)]).toEqual(['good', 'wrong']);
  });
  it('has a day to speak of below three tenths of the middle one, days without anybody left out', () => {
    const traffic = (...viewsByDay: number[]) => state({ viewsByDay }, 'traffic');
    expect(traffic(100, 100, 100, 100, 30)?.state).toBe('good');
    expect(traffic(100, 100, 100, 100, 29)?.state).toBe('look');
    expect(traffic(10, 100, 0, 30, 20, 40)?.text).toBe('Yesterday had 40 page views; 25 are usual.');
    expect(traffic(9, 100, 1, 30, 20, 40)?.text).toBe('Yesterday had 40 page views; 20 are usual.');
    expect(traffic(1, 1, 1, 5)).toBeUndefined();
    expect(traffic(1, 1, 0, 1, 5)).toBeUndefined();
    expect(traffic(1, 1, 1, 1, 5)?.state).toBe('good');
  });
  it('names three pages nobody has been to, and counts the rest', () => {
    const unseen = (count: number) =>
      state({ known: [page('/'), ...Array.from({ length: count }, (_, n) => page(`/p${n}`, 0))] }, 'pages')
        ?.mend;
    expect(unseen(3)).toBe('Not seen: /p0, /p1 and /p2. Nobody has been there, or the line is missing.');
    expect(unseen(4)).toBe(
      'Not seen: /p0, /p1, /p2 and 1 other. Nobody has been there, or the line is missing.',
    );
  });
  it('covers what a rule covers, and everything where it says so', () => {
    const cover = (...rules: (typeof onlyTours | typeof everywhere)[]) =>
      state(
        { campaigns: rules.map((rule, n) => ({ name: `C${n}`, state: 'running' as const, rule })) },
        'cover',
      )?.text;
    expect(cover(everywhere)).toBe('Every running campaign covers a page that is known.');
    expect(cover(onlyTours, onlyTours)).toBe('“C0” and “C1” cover no page that is known.');
    expect(state({ campaigns: [] }, 'cover')).toBeUndefined();
    expect(state({ known: [] }, 'cover')).toBeUndefined();
  });
  it('tells of the page with most routes, from two on', () => {
    const routes = (...counts: number[]) =>
      state({ seen: counts.map((count, n) => ({ path: `/r${n}`, at: ago(0), routes: count })) }, 'routes')
        ?.text;
    expect(routes(1)).toBeUndefined();
    expect(routes(2)).toMatch(/^\/r0 leads to 2 addresses/);
    expect(routes(3, 9, 5)).toMatch(/^\/r1 leads to 9 addresses/);
  });
  it('speaks of one as of one, and of several as of several', () => {
    const origins = (...all: string[]) => state({ site: { ...site, origins: all } }, 'origin')?.text;
    expect(origins('http://a.example')).toBe('http://a.example is not encrypted.');
    expect(origins('http://a.example', 'http://b.example', 'https://c.example')).toBe(
      'http://a.example and http://b.example are not encrypted.',
    );
    const asking = (...states: ('running' | 'scheduled' | 'draft')[]) =>
      state(
        {
          campaigns: states.map((of, n) => ({ name: `C${n}`, state: of, rule: asksCountry })),
          knowsCountries: false,
        },
        'country',
      )?.text;
    expect(asking('running')).toMatch(/^“C0” asks for a country/);
    expect(asking('running', 'scheduled', 'draft')).toMatch(/^“C0” and “C1” ask for a country/);
    expect(asking('draft')).toBeUndefined();
  });
  it('misses no country where only visitors of none are asked for', () => {
    const [group] = asksCountry.reach.audience.groups;
    const unknown = {
      ...asksCountry,
      reach: {
        ...asksCountry.reach,
        audience: {
          match: 'all' as const,
          groups: [{ ...group, items: [{ not: false, condition: { kind: 'country', code: 'unknown' } }] }],
        },
      },
    };
    const other = {
      ...unknown,
      reach: {
        ...unknown.reach,
        audience: {
          match: 'all' as const,
          groups: [{ ...group, items: [{ not: false, condition: { kind: 'signedIn', is: true } }] }],
        },
      },
    };
    for (const rule of [unknown, other])
      expect(
        state(
          { campaigns: [{ name: 'C', state: 'running', rule: rule as never }], knowsCountries: false },
          'country',
        ),
      ).toBeUndefined();
  });
  it('keeps letters apart from what keeps the tag from working', () => {
    const policy = (text: string, loadsLetters: boolean) =>
      state({ policies: [text], loadsLetters }, 'policy');
    const edge = 'https://edge.example';
    const all = `script-src ${edge}; connect-src ${edge}; img-src ${edge} data:; style-src 'unsafe-inline'`;
    expect(policy(`${all}; font-src 'self'`, true)?.state).toBe('look');
    expect(policy(`${all}; font-src 'self'`, false)?.state).toBe('good');
    expect(
      policy(`${all.replace(`connect-src ${edge}`, "connect-src 'self'")}; font-src 'self'`, false)?.text,
    ).toMatch(/: connect-src leaves https:\/\/edge\.example out\.$/);
  });
  it('tells what is wrong before what is worth a look, and that before what is well', () => {
    const order = siteHealth({
      ...well,
      site: { ...site, lastSeenAt: null, origins: ['http://a.example'] },
      manifestsRun: { calls: 100, outdated: 50, oldest: ago(1) },
    }).map((one) => one.state);
    expect(order).toEqual(
      [...order].sort((a, b) => ['wrong', 'look', 'good'].indexOf(a) - ['wrong', 'look', 'good'].indexOf(b)),
    );
    expect(new Set(order).size).toBe(3);
  });

  it('names the worst first, and a few pages of many', () => {
    const signs = siteHealth({
      ...well,
      site: { ...site, lastSeenAt: null },
      known: Array.from({ length: 9 }, (_, n) => page(`/p${n}`, 0)),
    });
    expect(signs[0]?.code).toBe('tag');
    expect(signs.find(({ code }) => code === 'pages')?.mend).toContain('/p0, /p1, /p2 and 6 others');
  });

  it.each([
    ['one day alone tells nothing of what is usual', { viewsByDay: [3] }, 'traffic'],
    [
      'a draft may cover nothing yet',
      { campaigns: [{ name: 'New', state: 'draft' as const, rule: onlyTours }] },
      'cover',
    ],
    ['loopback needs no encryption', { site: { ...site, origins: ['http://127.0.0.1:4410'] } }, 'origin'],
    [
      'no visit, no country missed',
      { campaigns: [{ name: 'North', state: 'running' as const, rule: asksCountry }], knowsCountries: null },
      'country',
    ],
  ])('%s', (_what, change, code) => {
    expect(siteHealth({ ...well, ...change }).map((one) => one.code)).not.toContain(code);
  });
});

it.each([
  [20_000, 'just now'],
  [60_000, '1 minute ago'],
  [5_400_000, '90 minutes ago'],
  [3 * 3_600_000, '3 hours ago'],
  [25 * 3_600_000, '25 hours ago'],
  [50 * 3_600_000, '2 days ago'],
  [61 * 3_600_000, '3 days ago'],
  [72 * 3_600_000, '3 days ago'],
])('%i ms ago is %s', (ms, words) => {
  expect(agoWords(NOW - ms, NOW)).toBe(words);
});
