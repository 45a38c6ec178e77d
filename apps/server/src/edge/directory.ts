import { brotliCompressSync, gzipSync } from 'node:zlib';
import type { PublishingService } from '../publishing/index.ts';
import type { SiteService } from '../sites/index.ts';

/** Bytes ready to serve, compressed once. */
export interface ServedFile {
  readonly plain: Buffer;
  readonly gzip: Buffer;
  readonly brotli: Buffer;
  readonly etag: string;
}

export const servedFile = (text: string | Buffer, etag: string): ServedFile => {
  const plain = Buffer.from(text as string);
  return { plain, gzip: gzipSync(plain, { level: 9 }), brotli: brotliCompressSync(plain), etag };
};

export interface EdgeSite {
  readonly id: string;
  readonly workspaceId: string;
  readonly origins: ReadonlySet<string>;
  readonly recordedFacts: readonly string[] | null;
  readonly manifest: ServedFile;
}

/** Sites and unknown keys remembered at most, so made-up keys cannot fill the memory. */
const REMEMBERED = 20_000;
/** A site is read again after this long even if no word of a change came. */
const FRESH_MS = 30_000;

interface Entry {
  readonly site: Promise<EdgeSite | undefined>;
  readonly readAtMs: number;
  /** What `site` has resolved to. */
  ready?: EdgeSite | undefined;
}

/** The sites as the edge serves them, from memory; `forget` is called when a publish is announced. */
export function createSiteDirectory(sites: SiteService, publishing: PublishingService) {
  const known = new Map<string, Entry>();

  async function read(key: string): Promise<EdgeSite | undefined> {
    const row = await sites.findByKey(key);
    const manifest = row && (await publishing.findManifest(row.id));
    if (!row || !manifest) return undefined;
    return {
      id: row.id,
      workspaceId: row.workspaceId,
      recordedFacts: row.settings.recordedFacts,
      origins: new Set(row.origins),
      manifest: servedFile(manifest.body, manifest.etag),
    };
  }

  return {
    /** The site if it is in memory: answers most requests without waiting for a turn of the event loop. */
    peek(key: string): EdgeSite | undefined {
      const entry = known.get(key);
      return entry && Date.now() - entry.readAtMs < FRESH_MS ? entry.ready : undefined;
    },
    find(key: string): Promise<EdgeSite | undefined> {
      const entry = known.get(key);
      if (entry && Date.now() - entry.readAtMs < FRESH_MS) return entry.site;
      if (known.size >= REMEMBERED) known.clear();
      const fresh: Entry = { site: read(key), readAtMs: Date.now() };
      known.set(key, fresh);
      fresh.site.then(
        (site) => {
          fresh.ready = site;
        },
        // A failed read is not an answer to remember.
        () => known.delete(key),
      );
      return fresh.site;
    },
    forget: (key: string): void => void known.delete(key),
    forgetAll: (): void => known.clear(),
  };
}
export type SiteDirectory = ReturnType<typeof createSiteDirectory>;
