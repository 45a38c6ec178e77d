import type { PageRule, Rule, SitePage } from '@velarium/contract';
import { describe, expect, it } from 'vitest';
import { plainRule } from '../testing/arbitrary.ts';
import { campaignId, compileRules } from '../testing/compile-rules.ts';
import { coverSite } from './coverage.ts';
import { coverageNotes } from './coverage-words.ts';
import { pageTree } from './page-tree.ts';

const page = (path: string, views = 10): SitePage => ({
  path,
  title: path,
  kind: null,
  source: 'sitemap',
  views,
});
const exact = (...paths: string[]): PageRule[] => paths.map((address) => ({ kind: 'exact', address }));
const rule = (include: PageRule[], seconds: number): Rule => ({
  ...plainRule,
  reach: { ...plainRule.reach, pages: { include, exclude: [], follows: null } },
  moment: { ...plainRule.moment, triggers: [{ kind: 'time', seconds }] },
});

function notesOf(pages: readonly SitePage[], rules: readonly Rule[], named = rules.length) {
  const manifest = compileRules(rules);
  const coverage = coverSite({
    manifest,
    origin: 'https://quillonfell.example',
    pages,
    device: 'desktop',
    visitor: null,
    atMs: 0,
  });
  return coverageNotes({
    coverage,
    campaigns: rules.slice(0, named).map((one, n) => ({ id: campaignId(n), name: `C${n + 1}`, rule: one })),
    running: [],
    longestStay: null,
    nowMs: 0,
    zone: 'Europe/London',
  });
}

describe('what is worth a look', () => {
  const crowdOn = (paths: string[], count: number, from: number) =>
    Array.from({ length: count }, (_, n) => rule(exact(...paths), from + n));
  it('is the largest crowd first, then the one on most pages, each with the page one looks at', () => {
    const pages = ['/a', '/b', '/c', '/d', '/e', '/f'].map((path) => page(path));
    const notes = notesOf(pages, [
      ...crowdOn(['/a'], 3, 1),
      ...crowdOn(['/b', '/c'], 3, 10),
      ...crowdOn(['/d', '/e', '/f'], 4, 20),
    ]);
    expect(notes.map(({ text, page: at }) => [text.replace(/ want.*/, ''), at])).toEqual([
      ['On /d, /e and /f 4', 3],
      ['On /b and /c 3', 1],
      ['On /a 3', 0],
    ]);
  });
  it('is pages with nothing, those most looked at first', () => {
    const notes = notesOf([page('/a', 5), page('/b', 30), page('/c', 65)], [rule(exact('/c'), 1)]);
    expect(notes).toEqual([
      {
        code: 'empty',
        page: 1,
        text: 'Nothing can appear on 2 pages of 3, with 35 % of all page views: /b and /a.',
      },
    ]);
  });
  it('says no share where nobody has looked at any page', () => {
    const [note] = notesOf([page('/a', 0), page('/b', 0)], [rule(exact('/b'), 1)]);
    expect(note?.text).toBe('Nothing can appear on 1 page of 2: /a.');
  });
  it('says the share of a single page view', () => {
    const [note] = notesOf([page('/a', 1), page('/b', 0)], [rule(exact('/b'), 1)]);
    expect(note?.text).toBe('Nothing can appear on 1 page of 2, with 100 % of all page views: /a.');
  });
  it('takes nothing it knows no rule of for alike', () => {
    expect(
      notesOf([page('/a')], [rule(exact('/a'), 1), rule(exact('/a'), 1)], 0).map(({ code }) => code),
    ).toEqual([]);
    const [twins] = notesOf([page('/a')], [rule(exact('/a'), 1), rule(exact('/a'), 1)]);
    expect(twins).toMatchObject({
      code: 'twins',
      campaign: 0,
      text: expect.stringMatching(/^“C1” and “C2” differ/),
    });
  });
});

it('the tree leads to each page by its own path', () => {
  const paths = (nodes: ReturnType<typeof pageTree>): string[] =>
    nodes.flatMap(({ path, children }) => [path, ...paths(children)]);
  expect(paths(pageTree(['/', '/a', '/a/b', '/a/c?d=1', '/a/c?d=2'].map((path) => page(path))))).toEqual([
    '/',
    '/a',
    '/a/b',
    '/a/c',
    '/a/c?d=1',
    '/a/c?d=2',
  ]);
});
