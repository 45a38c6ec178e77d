import type { PageGroup, Site } from '@velarium/contract';
import { type Coverage, coveredPages, type PageNode, type SitePages } from '@velarium/core';

/** A row of the map: a page, or several under one name. */
export interface CoverRow {
  readonly key: string;
  readonly name: string;
  readonly depth: number;
  /** By position. */
  readonly pages: readonly number[];
  readonly isFolder: boolean;
  readonly isOpen: boolean;
}

/** The rows of a tree whose folders are open or not. */
export function treeRows(
  nodes: readonly PageNode[],
  open: ReadonlySet<string>,
  coverage: Coverage,
  depth = 0,
): CoverRow[] {
  return nodes.flatMap((node) => {
    const isFolder = node.children.length > 0;
    const isOpen = open.has(node.path);
    const row: CoverRow = { key: node.path, name: node.name, depth, pages: node.pages, isFolder, isOpen };
    if (!isFolder || !isOpen) return [row];
    const own = node.pages.filter((page) => coverage.pages[page]?.path === node.path);
    return [
      row,
      // A folder that is a page too: on its own it is one of those in it.
      ...own.map((page) => ({
        key: `${node.path} itself`,
        name: `${node.name}, itself`,
        depth: depth + 1,
        pages: [page],
        isFolder: false,
        isOpen: false,
      })),
      ...treeRows(node.children, open, coverage, depth + 1),
    ];
  });
}

/** A row for each page group of the site, and one for what is in none. */
export function groupRows(
  groups: readonly PageGroup[],
  { pages }: Coverage,
  site: Site,
  sitePages: SitePages,
): CoverRow[] {
  const left = new Set(pages.keys());
  const row = (key: string, name: string, of: readonly number[]): CoverRow => ({
    key,
    name,
    depth: 0,
    pages: of,
    isFolder: false,
    isOpen: false,
  });
  const rows = groups.map(({ id, name, rules }) => {
    const { fitOf } = coveredPages({ include: rules, exclude: [], follows: null }, pages, {
      ...site,
      pages: sitePages,
    });
    const own = [...pages.keys()].filter((page) => fitOf(pages[page]?.path ?? '') === 'fits');
    for (const page of own) left.delete(page);
    return row(id, name, own);
  });
  return left.size > 0 ? [...rows, row('none', 'In no group', [...left])] : rows;
}

/** Pages whose path or title holds these words, each a row. */
export const foundRows = ({ pages }: Coverage, words: string): CoverRow[] =>
  [...pages.keys()]
    .filter((n) => {
      const page = pages[n];
      return `${page?.path} ${page?.title}`.toLowerCase().includes(words.toLowerCase());
    })
    .map((n) => ({
      key: String(n),
      name: pages[n]?.path ?? '',
      depth: 0,
      pages: [n],
      isFolder: false,
      isOpen: false,
    }));
