import type { CataloguePage } from './catalogue.ts';
import { readSitemap } from './read-sitemap.ts';

const PAGE_BYTES = 200_000;
const TIMEOUT_MS = 5000;
/** Pages whose heads are read for title and kind; the rest are called by their paths until visits tell more. */
const HEADS = 300;
const AT_ONCE = 8;

const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" };
const plain = (html: string) =>
  html.replace(/&(amp|lt|gt|quot|#39);/g, (_whole, name: string) => NAMED[name] as string).trim();

/** Title and declared kind of a page, read from its head. */
function readPageHead(html: string): { title: string; kind: string | null } {
  const title = /<title[^>]*>([^<]*)<\/title>/i.exec(html)?.[1] ?? '';
  const kind = /<meta\s+property="og:type"\s+content="([^"]*)"/i.exec(html)?.[1];
  return { title: plain(title), kind: kind ? plain(kind) : null };
}

async function readPage(origin: string, path: string): Promise<CataloguePage> {
  try {
    const response = await fetch(origin + path, {
      signal: AbortSignal.timeout(TIMEOUT_MS),
      redirect: 'error',
    });
    const { title, kind } = readPageHead((await response.text()).slice(0, PAGE_BYTES));
    return { path, title: title.split(' · ')[0] || path, kind };
  } catch {
    // A page that cannot be read is still a page of the site.
    return { path, title: path, kind: null };
  }
}

/** Learns a site's pages from its sitemap, with the titles and kinds of their heads. */
export async function learnPages(origin: string): Promise<CataloguePage[]> {
  const paths = await readSitemap(origin);
  const pages: CataloguePage[] = paths.slice(HEADS).map((path) => ({ path, title: path, kind: null }));
  for (let at = 0; at < Math.min(HEADS, paths.length); at += AT_ONCE) {
    const batch = paths.slice(at, Math.min(HEADS, at + AT_ONCE));
    pages.push(...(await Promise.all(batch.map((path) => readPage(origin, path)))));
  }
  return pages;
}
