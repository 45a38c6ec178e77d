import type { SitePage } from '@velarium/contract';

/** A folder of a site or a page: `pages` are the positions of all that lie in it, its own first. */
export interface PageNode {
  readonly path: string;
  /** The last part of the path, as a folder is called. */
  readonly name: string;
  readonly pages: readonly number[];
  readonly children: readonly PageNode[];
}

interface Growing {
  readonly path: string;
  readonly name: string;
  readonly pages: number[];
  readonly children: Map<string, Growing>;
}

/** A site's pages as a tree, by the parts of their paths. A folder with one thing in it and no page of its own is that thing. */
export function pageTree(pages: readonly SitePage[]): readonly PageNode[] {
  const root: Growing = { path: '', name: '', pages: [], children: new Map() };
  const order = pages
    .map((_, n) => n)
    .sort((a, b) => ((pages[a]?.path ?? '') < (pages[b]?.path ?? '') ? -1 : 1));
  for (const n of order) {
    const path = pages[n]?.path ?? '/';
    // A query, and what lies behind a fragment, tell pages of one folder apart.
    const [plain = '', rest] = [/^[^?#]*/.exec(path)?.[0], /[?#].*$/.exec(path)?.[0]];
    const parts =
      plain === '/'
        ? ['/']
        : plain
            .slice(1)
            .split('/')
            .map((part) => `/${part}`);
    let node = root;
    for (const part of rest ? [...parts, rest] : parts) {
      const next: Growing = node.children.get(part) ?? {
        path: part === '/' ? '/' : node.path + part,
        name: part,
        pages: [],
        children: new Map(),
      };
      node.children.set(part, next);
      next.pages.push(n);
      node = next;
    }
  }
  return [...root.children.values()].map(grown);
}

function grown(node: Growing): PageNode {
  const children = [...node.children.values()].map(grown);
  const [only] = children;
  if (children.length === 1 && only && only.pages.length === node.pages.length)
    return { ...only, name: node.name + only.name };
  return { path: node.path, name: node.name, pages: node.pages, children };
}
