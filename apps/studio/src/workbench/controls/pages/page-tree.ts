import type { PageRule, SitePage } from '@velarium/contract';

export interface TreeRow {
  readonly key: string;
  readonly depth: number;
  /** Of a page; a row without is a folder. */
  readonly page: SitePage | undefined;
  readonly folder: string;
  readonly views: number;
  /** What choosing the row means. */
  readonly rule: PageRule;
}

const partsOf = ({ path }: SitePage): string[] => (path.split('?')[0] as string).split('/').filter(Boolean);

/** The site's pages as the rows of a tree by path; what lies in a closed folder is left out. */
export function treeOf(pages: readonly SitePage[], closed: ReadonlySet<string>): TreeRow[] {
  const viewsIn = new Map<string, number>();
  const countIn = new Map<string, number>();
  for (const page of pages) {
    const parts = partsOf(page);
    for (let n = 1; n < parts.length; n++) {
      const folder = `/${parts.slice(0, n).join('/')}/`;
      viewsIn.set(folder, (viewsIn.get(folder) ?? 0) + page.views);
      countIn.set(folder, (countIn.get(folder) ?? 0) + 1);
    }
  }
  const rows: TreeRow[] = [];
  const begun = new Set<string>();
  const sorted = [...pages].sort((a, b) => (a.path < b.path ? -1 : 1));
  for (const page of sorted) {
    const parts = partsOf(page);
    let isHidden = false;
    let depth = 0;
    for (let n = 1; n < parts.length; n++) {
      const folder = `/${parts.slice(0, n).join('/')}/`;
      // A folder with a single page would only push it to the right.
      if ((countIn.get(folder) ?? 0) < 2) continue;
      if (!begun.has(folder) && !isHidden) {
        rows.push({
          key: folder,
          depth,
          page: undefined,
          folder,
          views: viewsIn.get(folder) ?? 0,
          rule: { kind: 'begins', address: folder },
        });
      }
      begun.add(folder);
      depth++;
      isHidden ||= closed.has(folder);
    }
    if (isHidden) continue;
    rows.push({
      key: page.path,
      depth,
      page,
      folder: '',
      views: page.views,
      rule: { kind: 'exact', address: page.path },
    });
  }
  return rows;
}
