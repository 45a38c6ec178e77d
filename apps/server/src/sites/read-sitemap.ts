import { LIMITS } from '@velarium/contract/values';
import { XMLParser } from 'fast-xml-parser';
import { OutsideError, type ReadOutside } from '../infra/outside.ts';

const TIMEOUT_MS = 15_000;
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

/** @throws {OutsideError} In words when it cannot be had. */
async function readFile(
  readOutside: ReadOutside,
  address: string,
  signal: AbortSignal | undefined,
): Promise<Parsed> {
  const { status, bytes } = await readOutside(address, {
    mostBytes: MOST_BYTES,
    timeoutMs: TIMEOUT_MS,
    signal,
  });
  if (status !== 200) throw new OutsideError(`${address} answered with status ${status}`);
  try {
    return parser.parse(bytes.toString('utf8')) as Parsed;
  } catch {
    throw new OutsideError(`${address} is no XML that can be read`);
  }
}

const locations = (entries: readonly { readonly loc?: unknown }[] | undefined): string[] =>
  (entries ?? []).flatMap(({ loc }) => (typeof loc === 'string' ? loc.trim() : []));

/**
 * The paths, with their queries, that a site's sitemap names on its own origin; an index of sitemaps is followed one
 * level down, as the protocol has it. Source: sitemaps.org protocol 0.9.
 */
export async function readSitemap(
  readOutside: ReadOutside,
  origin: string,
  signal?: AbortSignal,
): Promise<string[]> {
  const paths = new Set<string>();
  const take = (addresses: readonly string[]) => {
    for (const address of addresses) {
      if (paths.size >= LIMITS.pagesOfSite || !URL.canParse(address)) continue;
      const url = new URL(address);
      if (url.origin === origin) paths.add(url.pathname + url.search);
    }
  };
  const read = async (address: string, isTop: boolean): Promise<void> => {
    const parsed = await readFile(readOutside, address, signal);
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
