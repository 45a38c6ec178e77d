import { LIMITS } from '@velarium/contract/values';
import { ownTitles, tidyTitle } from '@velarium/core';
import { DomUtils } from 'htmlparser2';
import { parseHtml } from '../infra/html.ts';
import type { ReadOutside } from '../infra/outside.ts';
import type { CataloguePage } from './catalogue.ts';
import { createPageFinder } from './find-pages.ts';

const PAGE_BYTES = 200_000;
const TIMEOUT_MS = 5000;
/** As a kind that somebody writes themselves may be. */
const LONGEST_KIND = 80;
/** Pages whose heads are read for title and kind; the rest are called by their paths until visits tell more. */
const HEADS = 300;
const AT_ONCE = 8;

/** Title and declared kind of a page, as its source has them. Source of `og:type`: the Open Graph protocol. */
function readPageHead(html: string): { title: string; kind: string | null } {
  const { children } = parseHtml(html);
  const [title] = DomUtils.getElementsByTagName('title', children);
  const kind = DomUtils.getElementsByTagName('meta', children).find(
    ({ attribs }) => attribs.property === 'og:type',
  )?.attribs.content;
  return {
    title: title ? tidyTitle(DomUtils.textContent(title)) : '',
    kind: kind?.trim().slice(0, LONGEST_KIND) || null,
  };
}

/** What became of reading one page: its entry, `gone` where the site says there is none, `unread` where it says nothing. */
type PageRead = CataloguePage | 'gone' | 'unread';

async function readPage(
  read: ReadOutside,
  origin: string,
  path: string,
  signal: AbortSignal | undefined,
): Promise<PageRead> {
  try {
    const { status, address, bytes } = await read(origin + path, {
      mostBytes: PAGE_BYTES,
      timeoutMs: TIMEOUT_MS,
      signal,
      isCut: true,
      accept: 'text/html',
    });
    if (status === 404 || status === 410) return 'gone';
    if (status >= 400) return 'unread';
    const { pathname, search } = new URL(address);
    const { title, kind } = readPageHead(bytes.toString('utf8'));
    return { path: pathname + search, title: title || pathname, kind };
  } catch {
    return 'unread';
  }
}

export interface PagesLearned {
  readonly pages: readonly CataloguePage[];
  /** Where they were found, in words. */
  readonly source: string;
  /** Pages whose heads gave nothing; they stand in the catalogue by their paths. */
  readonly unread: number;
}

export interface Learning {
  readonly signal?: AbortSignal;
  /** The address of a sitemap; wherever the site says without. */
  readonly sitemap?: string | null;
  /** Called as it goes on: how many pages were found, and how many of them are done with. */
  readonly onProgress?: (found: number, read: number, unread: number) => void;
  /** Reduces a path to the one its page goes by. */
  readonly pathOf: (path: string) => string;
}

/**
 * Learns a site's pages from its sitemap or its links, with the titles and kinds of their heads. A page that answers
 * that it is not there is left out; two addresses of one page are one.
 *
 * @throws {OutsideError} When nothing names its pages, or when it is stopped.
 */
export async function learnPages(
  readOutside: ReadOutside,
  origin: string,
  { signal, sitemap = null, onProgress, pathOf }: Learning,
): Promise<PagesLearned> {
  const found = await createPageFinder(readOutside, origin, signal).find(sitemap);
  const paths = [...new Set(found.paths.map(pathOf))].slice(0, LIMITS.pagesOfSite);
  const pages = new Map<string, CataloguePage>();
  const put = (page: CataloguePage) => pages.set(pathOf(page.path), { ...page, path: pathOf(page.path) });
  let unread = 0;
  onProgress?.(paths.length, 0, 0);
  const heads = paths.slice(0, HEADS);
  for (let at = 0; at < heads.length; at += AT_ONCE) {
    signal?.throwIfAborted();
    const batch = heads.slice(at, at + AT_ONCE);
    const read = await Promise.all(batch.map((path) => readPage(readOutside, origin, path, signal)));
    read.forEach((one, n) => {
      const path = batch[n] as string;
      if (one === 'unread') {
        unread++;
        // A page that cannot be read is still a page of the site.
        put({ path, title: path, kind: null });
      } else if (one !== 'gone') put(one);
    });
    onProgress?.(paths.length, at + batch.length, unread);
  }
  for (const path of paths.slice(HEADS)) if (!pages.has(path)) put({ path, title: path, kind: null });
  onProgress?.(paths.length, paths.length, unread);
  return { pages: withOwnTitles([...pages.values()]), source: found.source, unread };
}

/** Pages by their own titles, without what the site writes in all of those it has; pages without one keep their paths. */
export function withOwnTitles(pages: readonly CataloguePage[]): CataloguePage[] {
  const titled = pages.filter(({ title, path }) => title !== path);
  const titles = ownTitles(titled.map(({ title }) => title));
  const own = new Map(titled.map(({ path }, n) => [path, titles[n] as string]));
  return pages.map((page) => ({ ...page, title: own.get(page.path) ?? page.title }));
}
