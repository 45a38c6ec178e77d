import type { AudienceItem, ManifestCampaign, PageRule, Rule, SitePage } from '@velarium/contract';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileManifest } from '../manifest/compile.ts';
import { NO_SITE_PAGES } from '../pages/resolve-pages.ts';
import { beginPage, beginRehearsal } from '../rehearsal/beginning.ts';
import { plainMessage, plainRule, plainSettings } from '../testing/arbitrary.ts';
import { type CoverageQuestion, coverSite } from './coverage.ts';
import { cellWords, coverageNotes, coverageTable, metOnWords } from './coverage-words.ts';
import { type PageNode, pageTree } from './page-tree.ts';

const NOW = Date.parse('2026-12-02T12:00Z');
const page = (path: string, views = 10): SitePage => ({
  path,
  title: path,
  kind: null,
  source: 'sitemap',
  views,
});
const PAGES = [page('/', 60), page('/tours', 30), page('/tours/first-light', 10), page('/shop', 0)];

interface Of {
  readonly include?: PageRule[];
  readonly exclude?: PageRule[];
  readonly change?: (rule: Rule) => Rule;
  readonly anchor?: 'bottom-start' | 'bottom-end';
}
const one = (
  n: number,
  { include = [{ kind: 'every' }], exclude = [], change = (rule) => rule, anchor }: Of,
) => {
  const id = `10000000-0000-4000-8000-00000000000${n}`;
  const rule = change({
    ...plainRule,
    reach: { ...plainRule.reach, devices: ['desktop'], pages: { include, exclude, follows: null } },
  });
  const message = anchor ? { ...plainMessage, format: 'flyin' as const, anchor } : plainMessage;
  return { id, name: `C${n}`, rule, message };
};
function ask(list: readonly Of[], question: Partial<CoverageQuestion> = {}) {
  const campaigns = list.map((of, n) => one(n + 1, of));
  const manifest = compileManifest(
    { settings: plainSettings, timeZone: 'Europe/London', pages: NO_SITE_PAGES },
    campaigns.map(({ id, rule, message }) => ({
      id,
      version: 1,
      epoch: 0,
      messages: [message],
      messageHash: '0'.repeat(32),
      rule,
      asksFacts: false,
      variants: [],
    })),
  );
  // A manifest stands in order of precedence; here campaigns are asked for as they were listed.
  const order = campaigns.map(({ id }) => manifest.campaigns.findIndex((other) => other.id === id));
  const coverage = coverSite({
    manifest,
    origin: 'https://quillonfell.example',
    pages: PAGES,
    device: 'desktop',
    visitor: null,
    atMs: NOW,
    ...question,
  });
  const notes = (more: { longestStay?: number | null } = {}) =>
    coverageNotes({
      coverage,
      campaigns,
      running: [],
      longestStay: null,
      nowMs: NOW,
      zone: 'Europe/London',
      ...more,
    });
  return {
    coverage,
    campaigns,
    order,
    notes,
    cell: (at: number, n: number) => coverage.cell(at, order[n] as number),
  };
}
const schedule = (start: string | null, end: string | null) => (rule: Rule) => ({
  ...rule,
  limits: {
    ...rule.limits,
    schedule: { zone: 'site' as const, start, end, days: [], hours: [], blackouts: [] },
  },
});
const after = (seconds: number) => (rule: Rule) => ({
  ...rule,
  moment: { ...rule.moment, triggers: [{ kind: 'time' as const, seconds }] },
});

describe('a cell', () => {
  const begins: PageRule = { kind: 'begins', address: '/tours' };
  it.each<[what: string, of: Of, question: Partial<CoverageQuestion>, cells: string[]]>([
    ['everywhere', {}, {}, ['can', 'can', 'can', 'can']],
    ['under a folder', { include: [begins] }, {}, ['not', 'can', 'can', 'not']],
    [
      'but for one page',
      { exclude: [{ kind: 'exact', address: '/shop' }] },
      {},
      ['can', 'can', 'can', 'excluded'],
    ],
    ['on another device', { include: [begins] }, { device: 'mobile' }, ['not', 'device', 'device', 'not']],
    [
      'before its start',
      { include: [begins], change: schedule('2026-12-24T00:00', null) },
      {},
      ['not', 'closed', 'closed', 'not'],
    ],
    [
      'after its start',
      { include: [begins], change: schedule('2026-12-24T00:00', null) },
      { atMs: Date.parse('2026-12-25T00:00Z') },
      ['not', 'can', 'can', 'not'],
    ],
    [
      'where only the page can tell',
      { include: [{ kind: 'holds', selector: '.open' }] },
      {},
      Array(4).fill('may'),
    ],
  ])('%s', (_, of, question, cells) => {
    const { cell } = ask([of], question);
    expect(PAGES.map((_page, at) => cell(at, 0))).toEqual(cells);
  });

  it('says why in words, each differently', () => {
    const words = (['can', 'may', 'device', 'closed', 'excluded', 'not'] as const).map((cell) =>
      cellWords(cell, 'Letter', '/tours', 'mobile'),
    );
    expect(new Set(words).size).toBe(6);
    expect(words.every((one) => one.includes('“Letter”') && one.includes('/tours'))).toBe(true);
    expect(words[2]).toContain('never shown on phones');
  });
});

describe('what can happen on a page', () => {
  it('begins with what can open first', () => {
    const { coverage, order } = ask([{ change: after(20) }, { change: after(5) }, { change: after(10) }]);
    expect(coverage.on(0).map((n) => order.indexOf(n))).toEqual([1, 2, 0]);
  });

  it('is a crowd only where the same place is wanted', () => {
    const apart = ask([{ anchor: 'bottom-start' }, { anchor: 'bottom-end' }, { anchor: 'bottom-start' }]);
    expect(apart.coverage.crowd(0)).toHaveLength(2);
    // What interrupts takes the whole window.
    const over = ask([{ anchor: 'bottom-start' }, { anchor: 'bottom-end' }, {}]);
    expect(over.coverage.crowd(0)).toHaveLength(2);
    expect(ask([{}, {}, { anchor: 'bottom-end' }]).coverage.crowd(0)).toHaveLength(3);
  });
});

describe('what is worth a look', () => {
  const codes = (list: readonly Of[], more = {}) =>
    ask(list)
      .notes(more)
      .map(({ code }) => code);
  it.each<[what: string, list: readonly Of[], expected: string[]]>([
    ['nothing where all is well', [{}], []],
    ['pages with nothing', [{ include: [{ kind: 'begins', address: '/tours' }] }], ['empty']],
    [
      'three that want one place',
      [{ change: after(1) }, { change: after(2) }, { change: after(3) }],
      ['crowded'],
    ],
    ['two that take turns', [{ change: after(1) }, { change: after(2) }], []],
    ['two that differ in words alone', [{}, {}], ['twins']],
    ['one that is over', [{}, { change: schedule(null, '2026-11-01T00:00') }], ['never']],
    ['one of a page that is gone', [{}, { include: [{ kind: 'exact', address: '/gone' }] }], ['nothing']],
  ])('%s', (_, list, expected) => expect(codes(list)).toEqual(expected));

  it('is a moment later than anybody stays', () => {
    const list = [{ change: after(61) }];
    expect(codes(list, { longestStay: 60 })).toEqual(['late']);
    expect(codes(list, { longestStay: 61 })).toEqual([]);
    expect(codes(list)).toEqual([]);
  });

  it('what can happen on a page comes in the order in which it opens', () => {
    const { coverage, campaigns } = ask([{ change: after(20) }, { change: after(5) }, { change: after(9) }]);
    const names = new Map(campaigns.map(({ id, name }) => [id, name]));
    expect(coverage.on(0).map((n) => names.get(coverage.campaigns[n]?.id ?? ''))).toEqual(['C2', 'C3', 'C1']);
  });
  it('of pages nobody has looked at no share is said', () => {
    const [note] = ask([
      { include: PAGES.slice(0, 3).map(({ path }) => ({ kind: 'exact', address: path })) },
    ]).notes();
    expect(note?.text).toBe('Nothing can appear on 1 page of 4, with 0 % of all page views: /shop.');
  });
  it('is said with names and figures', () => {
    const [note] = ask([{ include: [{ kind: 'begins', address: '/tours' }] }]).notes();
    expect(note?.text).toBe('Nothing can appear on 2 pages of 4, with 60 % of all page views: / and /shop.');
    const [crowd] = ask([{ change: after(1) }, { change: after(2) }, { change: after(3) }]).notes();
    expect(crowd?.text).toBe(
      'On /, /tours, /tours/first-light and 1 more 3 want one place: “C1”, “C2” and “C3”.',
    );
  });
});

describe('the tree of pages', () => {
  const flat = (nodes: readonly PageNode[], depth = 0): string[] =>
    nodes.flatMap(({ name, pages, children }) => [
      `${' '.repeat(depth)}${name} ${pages.length}`,
      ...flat(children, depth + 1),
    ]);
  it('has folders by the parts of paths', () => {
    expect(flat(pageTree(PAGES))).toEqual(['/ 1', '/shop 1', '/tours 2', ' /first-light 1']);
  });
  it('has no folder for one thing, and tells pages apart by what follows the path', () => {
    expect(flat(pageTree([page('/a/b/c'), page('/a/b/d')]))).toEqual(['/a/b 2', ' /c 1', ' /d 1']);
    expect(flat(pageTree([page('/room?no=1'), page('/room?no=2')]))).toEqual([
      '/room 2',
      ' ?no=1 1',
      ' ?no=2 1',
    ]);
  });
  it('holds every page once', () => {
    const paths = fc.uniqueArray(fc.stringMatching(/^(\/[ab]{1,2}){1,4}$/), { maxLength: 40 });
    fc.assert(
      fc.property(paths, (list) => {
        const leaves = (nodes: readonly PageNode[]): number[] =>
          nodes.flatMap(({ pages, children }) => {
            const below = children.flatMap((child) => child.pages);
            return [...pages.filter((n) => !below.includes(n)), ...leaves(children)];
          });
        const all = leaves(pageTree(list.map((path) => page(path))));
        expect(all.sort((a, b) => a - b)).toEqual(list.map((_, n) => n));
      }),
    );
  });
});

it('as a table has a head, and a line a page', () => {
  const { coverage } = ask([{}], { pages: [{ ...page('/a'), title: 'A' }, page('/b', 3)] });
  expect(coverageTable(coverage, () => 'Letter')).toEqual([
    ['Page', 'Title', 'Page views of 30 days', 'Letter'],
    ['/a', 'A', '10', 'Can appear'],
    ['/b', '/b', '3', 'Can appear'],
  ]);
});

it('appears where the manifest’s own index says, whatever the rules', () => {
  const rule = fc.constantFrom<PageRule>(
    { kind: 'every' },
    { kind: 'exact', address: '/tours' },
    { kind: 'begins', address: '/tours' },
    { kind: 'contains', text: 'light' },
  );
  const of = fc.record({
    include: fc.array(rule, { minLength: 1, maxLength: 3 }),
    exclude: fc.array(rule, { maxLength: 2 }),
  });
  fc.assert(
    fc.property(fc.array(of, { minLength: 1, maxLength: 4 }), (list) => {
      const { coverage } = ask(list);
      const every = PAGES.map((_, at) => at);
      coverage.campaigns.forEach((_: ManifestCampaign, n) => {
        const can = every.filter((at) => coverage.cell(at, n) === 'can');
        expect(coverage.covered(every, n)).toBe(can.length);
        for (const at of can) expect(coverage.on(at)).toContain(n);
      });
    }),
  );
});

it.each<[showings: number, visitors: number, words: string]>([
  [0, 0, 'Nobody has met it here in the last 28 days.'],
  [1, 1, 'Met here once by 1 visitor in the last 28 days, on any device.'],
  [1280, 1100, 'Met here 1,280 times by 1,100 visitors in the last 28 days, on any device.'],
])('%d showings on a page, of %d visitors', (showings, visitors, words) => {
  expect(metOnWords({ showings, visitors })).toBe(words);
});
it('what nothing was heard of was met by nobody', () => {
  expect(metOnWords(undefined)).toBe('Nobody has met it here in the last 28 days.');
});

describe('for one visitor, whose visit begins on the page', () => {
  const { visitor } = beginRehearsal(beginPage('/'), '2026-12-02T12:00');
  const audience = (...conditions: AudienceItem['condition'][]) => ({
    change: (rule: Rule): Rule => ({
      ...rule,
      reach: {
        ...rule.reach,
        audience: {
          match: 'all',
          groups: [
            { not: false, match: 'all', items: conditions.map((condition) => ({ not: false, condition })) },
          ],
        },
      },
    }),
  });
  const asks: Of[] = [
    {},
    audience({ kind: 'visitor', is: 'returning' }),
    audience({ kind: 'source', is: 'search' }),
    audience({ kind: 'landing', path: '/tours' }),
  ];
  const on = (path: string, more: Partial<typeof visitor> | null) => {
    const { coverage, order } = ask(asks, { visitor: more && { ...visitor, ...more } });
    const at = PAGES.findIndex((one) => one.path === path);
    return order.map((campaign) => coverage.cell(at, campaign));
  };
  it.each([
    ['anybody can be any of them', '/', null, ['can', 'can', 'can', 'can']],
    ['a first reader', '/', {}, ['can', 'audience', 'audience', 'audience']],
    ['a first reader on the page that is asked for', '/tours', {}, ['can', 'audience', 'audience', 'can']],
    ['somebody coming back', '/', { session: 2 }, ['can', 'can', 'audience', 'audience']],
    ['from a search', '/', { source: 'search' as const }, ['can', 'audience', 'can', 'audience']],
  ])('%s', (_, path, who, cells) => expect(on(path, who)).toEqual(cells));
});
