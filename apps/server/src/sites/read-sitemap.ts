import { gunzipSync } from 'node:zlib';
import { LIMITS } from '@velarium/contract/values';
import { XMLParser } from 'fast-xml-parser';

const TIMEOUT_MS = 5000;
/** Bytes a sitemap may unfold to. Source: sitemaps.org, 50 MB; fewer are enough for the pages kept. */
const MOST_BYTES = 20_000_000;
/** Sitemaps an index may name that are read. */
const MOST_FILES = 50;

const parser = new XMLParser({
  isArray: (name) => name === 'url' || name === 'sitemap',
});

interface Parsed {
  readonly urlset?: { readonly url?: readonly { readonly loc?: unknown }[] } | string;
  readonly sitemapindex?: { readonly sitemap?: readonly { readonly loc?: unknown }[] } | string;
}

/** Fetches a file of a site, unpacked where it is gzip. @throws {Error} In words when it cannot be had. */
async function fetchText(address: string): Promise<string> {
  const response = await fetch(address, { signal: AbortSignal.timeout(TIMEOUT_MS), redirect: 'error' });
  if (!response.ok) throw new Error(`${address} answered with status ${response.status}`);
  const bytes = Buffer.from(await response.arrayBuffer());
  // Source: RFC 1952, the two bytes every gzip file begins with.
  const isGzip = bytes[0] === 0x1f && bytes[1] === 0x8b;
  return (
    isGzip ? gunzipSync(bytes, { maxOutputLength: MOST_BYTES }) : bytes.subarray(0, MOST_BYTES)
  ).toString('utf8');
}

const locations = (entries: readonly { readonly loc?: unknown }[] | undefined): string[] =>
  (entries ?? []).flatMap(({ loc }) => (typeof loc === 'string' ? loc.trim() : []));

/**
 * The paths, with their queries, that a site's sitemap names on its own origin; an index of sitemaps is followed one
 * level down, as the protocol has it. Source: sitemaps.org protocol 0.9.
 */
export async function readSitemap(origin: string): Promise<string[]> {
  const paths = new Set<string>();
  const take = (addresses: readonly string[]) => {
    for (const address of addresses) {
      if (paths.size >= LIMITS.pagesOfSite || !URL.canParse(address)) continue;
      const url = new URL(address);
      if (url.origin === origin) paths.add(url.pathname + url.search);
    }
  };
  const read = async (address: string, isTop: boolean): Promise<void> => {
    const parsed = parser.parse(await fetchText(address)) as Parsed;
    if (typeof parsed.urlset === 'object') take(locations(parsed.urlset.url));
    if (!isTop || typeof parsed.sitemapindex !== 'object') return;
    const files = locations(parsed.sitemapindex.sitemap)
      .filter((file) => URL.canParse(file) && new URL(file).origin === origin)
      .slice(0, MOST_FILES);
    for (const file of files) await read(file, false);
  };
  await read(`${origin}/sitemap.xml`, true);
  return [...paths];
}
