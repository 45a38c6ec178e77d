import { LIMITS } from '@velarium/contract/values';
import { XMLParser } from 'fast-xml-parser';
import { DomUtils } from 'htmlparser2';
import { parseHtml } from '../infra/html.ts';
import { OutsideError } from '../infra/network.ts';
import type { ReadOutside } from '../infra/outside.ts';

const TIMEOUT_MS = 15_000;
/** Bytes a sitemap may unfold to. Source: sitemaps.org, 50 MB; fewer are enough for the pages kept. */
const MOST_BYTES = 20_000_000;
/** Sitemaps an index may name that are read. */
const MOST_FILES = 50;
const ROBOTS_BYTES = 500_000;
const LINKED_BYTES = 1_000_000;
/** Pages found by links at most, and how many of them are followed further. */
const MOST_LINKED = 2000;
const MOST_FOLLOWED = 60;
/** What is linked and no page (common practice). */
const NO_PAGE =
  /\.(?:pdf|zip|jpe?g|png|gif|webp|avif|svg|mp[34]|webm|css|m?js|json|xml|txt|ics|docx?|xlsx?)(?:\?|$)/i;

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

export interface PagesFound {
  /** Paths with their queries, on the site's own origin. */
  readonly paths: readonly string[];
  /** Where they were found, in words. */
  readonly source: string;
}

/** What a site can be asked for its pages, one after the other. */
export function createPageFinder(readOutside: ReadOutside, origin: string, signal: AbortSignal | undefined) {
  const ownPath = (address: string, base = origin): string[] => {
    if (!URL.canParse(address, base)) return [];
    const url = new URL(address, base);
    return url.origin === origin ? [url.pathname + url.search] : [];
  };

  /** A sitemap, or an index of them one level down, as the protocol has it. Source: sitemaps.org protocol 0.9. */
  async function ofSitemap(address: string): Promise<string[]> {
    const paths = new Set<string>();
    const read = async (file: string, isTop: boolean): Promise<void> => {
      const parsed = await readFile(readOutside, file, signal);
      if (typeof parsed.urlset === 'object') {
        for (const path of locations(parsed.urlset.url).flatMap((one) => ownPath(one)))
          if (paths.size < LIMITS.pagesOfSite) paths.add(path);
      }
      if (!isTop || typeof parsed.sitemapindex !== 'object') return;
      // An index speaks for the host it stands on.
      const { origin: host } = new URL(file);
      const files = locations(parsed.sitemapindex.sitemap).filter(
        (one) => URL.canParse(one) && new URL(one).origin === host,
      );
      for (const one of files.slice(0, MOST_FILES)) await read(one, false);
    };
    await read(address, true);
    return [...paths];
  }

  /** The sitemaps that a site names to robots. Source: sitemaps.org, "Specifying the Sitemap location in your robots.txt file". */
  async function named(): Promise<string[]> {
    try {
      const { status, bytes } = await readOutside(`${origin}/robots.txt`, {
        mostBytes: ROBOTS_BYTES,
        timeoutMs: TIMEOUT_MS,
        signal,
        isCut: true,
      });
      if (status !== 200) return [];
      return [...bytes.toString('utf8').matchAll(/^[ \t]*sitemap[ \t]*:[ \t]*(\S+)/gim)]
        .flatMap(([, address = '']) => (URL.canParse(address, origin) ? new URL(address, origin).href : []))
        .slice(0, MOST_FILES);
    } catch {
      return [];
    }
  }

  /** What the home page leads to, and what those pages lead to. */
  async function ofLinks(): Promise<string[]> {
    const paths = new Set<string>(['/']);
    const follow = async (path: string): Promise<void> => {
      const { status, address, type, bytes } = await readOutside(origin + path, {
        mostBytes: LINKED_BYTES,
        timeoutMs: TIMEOUT_MS,
        signal,
        isCut: true,
        accept: 'text/html',
      });
      if (status !== 200 || !/html/i.test(type)) return;
      for (const { attribs } of DomUtils.getElementsByTagName(
        'a',
        parseHtml(bytes.toString('utf8')).children,
      ))
        for (const found of ownPath(attribs.href ?? '', address))
          if (paths.size < MOST_LINKED && !NO_PAGE.test(found)) paths.add(found);
    };
    await follow('/');
    for (const path of [...paths].slice(1, 1 + MOST_FOLLOWED)) {
      signal?.throwIfAborted();
      // A link that leads nowhere is not the site's end.
      await follow(path).catch(() => {});
    }
    return [...paths];
  }

  return {
    /**
     * The pages of a site: by the sitemap whose address is given, else by those it names to robots, else by the usual
     * place, else by the links of its home page.
     *
     * @throws {OutsideError} In words, when nothing of that can be had.
     */
    async find(given: string | null): Promise<PagesFound> {
      if (given !== null) return { paths: await ofSitemap(given), source: `the sitemap ${given}` };
      const addresses = await named();
      const paths = new Set<string>();
      let fault: unknown;
      for (const address of addresses.length > 0 ? addresses : [`${origin}/sitemap.xml`]) {
        try {
          for (const path of await ofSitemap(address)) paths.add(path);
        } catch (error) {
          if (!(error instanceof OutsideError) || signal?.aborted) throw error;
          fault = error;
        }
      }
      if (paths.size > 0)
        return {
          paths: [...paths],
          source:
            addresses.length > 0 ? 'the sitemaps that robots.txt names' : `the sitemap ${origin}/sitemap.xml`,
        };
      const linked = await ofLinks().catch(() => []);
      if (linked.length > 1)
        return { paths: linked, source: 'the links of the home page, for there is no sitemap' };
      throw fault ?? new OutsideError(`${origin} has neither a sitemap nor links to pages of its own`);
    },
  };
}
