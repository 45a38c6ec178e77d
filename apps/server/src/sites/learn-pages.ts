import type { SitePage } from '@velarium/contract';
import { XMLParser } from 'fast-xml-parser';

const PAGE_BYTES = 2_000_000;
const TIMEOUT_MS = 5000;
const LEARNED = 2000;

async function read(address: string): Promise<string> {
  const response = await fetch(address, { signal: AbortSignal.timeout(TIMEOUT_MS), redirect: 'error' });
  if (!response.ok) throw new Error(`${address}: expected status 200, got ${response.status}`);
  return (await response.text()).slice(0, PAGE_BYTES);
}

const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" };
const plain = (html: string) =>
  html.replace(/&(amp|lt|gt|quot|#39);/g, (_whole, name: string) => NAMED[name] as string).trim();

/** Title and declared kind of a page, read from its head. */
function readPageHead(html: string): { title: string; kind: string | null } {
  const title = /<title[^>]*>([^<]*)<\/title>/i.exec(html)?.[1] ?? '';
  const kind = /<meta\s+property="og:type"\s+content="([^"]*)"/i.exec(html)?.[1];
  return { title: plain(title), kind: kind ? plain(kind) : null };
}

/**
 * Learns a site's pages from its sitemap.xml: the paths on that origin, with the titles and kinds of their heads.
 * Source: sitemaps.org protocol 0.9.
 */
export async function learnPages(origin: string): Promise<SitePage[]> {
  const parsed = new XMLParser({ isArray: (name) => name === 'url' }).parse(
    await read(`${origin}/sitemap.xml`),
  ) as {
    urlset?: { url?: { loc: string }[] };
  };
  const paths = (parsed.urlset?.url ?? [])
    .map(({ loc }) => new URL(loc))
    .filter((url) => url.origin === origin)
    .slice(0, LEARNED)
    .map((url) => url.pathname + url.search);
  return Promise.all(
    paths.map(async (path) => {
      const { title, kind } = readPageHead(await read(origin + path));
      return { path, title: title.split(' · ')[0] || path, kind };
    }),
  );
}
