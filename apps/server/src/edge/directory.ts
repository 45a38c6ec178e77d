import type { Manifest } from '@velarium/contract';
import { SITE_KEY } from '@velarium/contract/values';
import type { PageParts } from '@velarium/core';
import { Recent } from '../infra/recent.ts';
import type { PublishingService, SiteToServe } from '../publishing/index.ts';
import type { KeptFiles } from './kept-files.ts';
import { type ServedFile, servedFile } from './served-file.ts';

/** Where sites and messages are read from. */
export type EdgeSource = Pick<PublishingService, 'findSite' | 'findMessage'>;

export interface EdgeSite {
  readonly id: string;
  readonly workspaceId: string;
  readonly origins: ReadonlySet<string>;
  readonly recordedFacts: readonly string[] | null;
  readonly pageParts: PageParts;
  readonly madeMs: number;
  readonly manifest: ServedFile;
}

/** Sites remembered at most. */
const REMEMBERED = 20_000;
/** Keys that are none, remembered apart, so made-up ones push no site out. */
const UNKNOWN_KEYS = 5000;
/** A site is looked at again after this long even if no word of a change came. */
const FRESH_MS = 30_000;
/** How long a known site is waited for when it is read anew; then it is served as it was known. */
const PATIENCE_MS = 1500;
/** Message files kept compressed in memory at most. */
const MESSAGES_READY = 2000;
/** For a site kept on disk before pages could be told apart by more than their paths. */
const PLAIN_PARTS: PageParts = { pageParameters: [], hashRoutes: false };
const HASH = /^[0-9a-f]{32}$/;

interface Known {
  readonly site: EdgeSite;
  readonly atMs: number;
}

/**
 * The sites as the edge serves them: from memory, looked at again when a publish is announced, and as they were last
 * known, in memory or on disk, for as long as the database is away.
 */
export function createSiteDirectory(source: EdgeSource, kept: KeptFiles, clock: () => number = Date.now) {
  const known = new Recent<Known>(REMEMBERED);
  const unknown = new Recent<number>(UNKNOWN_KEYS);
  /** Reads under way. One that began before a change was announced is nobody's any more. */
  const reading = new Map<string, Promise<EdgeSite | undefined>>();
  const messages = new Recent<Promise<ServedFile | undefined>>(MESSAGES_READY);
  /** Sites read before this are not fresh, whenever that was. */
  let freshSinceMs = Number.NEGATIVE_INFINITY;

  const isFresh = (atMs: number): boolean => atMs >= freshSinceMs && clock() - atMs < FRESH_MS;

  const siteOf = async (row: SiteToServe, body: string): Promise<EdgeSite> => ({
    id: row.id,
    workspaceId: row.workspaceId,
    recordedFacts: row.recordedFacts,
    pageParts: row.pageParts ?? PLAIN_PARTS,
    // Of one kept on disk before that was told it is not known.
    madeMs: row.madeMs ?? 0,
    origins: new Set(row.origins),
    manifest: await servedFile(body, row.etag),
  });

  async function readSite(key: string, isCurrent: () => boolean): Promise<EdgeSite | undefined> {
    const beganMs = clock();
    const old = known.get(key)?.site;
    let row: SiteToServe | undefined;
    try {
      row = await source.findSite(key, old?.manifest.etag);
    } catch (error) {
      const last = old ?? (await readKept(key));
      if (!last) throw error;
      // Served as it was, and asked for again soon.
      known.set(key, { site: last, atMs: clock() - FRESH_MS + PATIENCE_MS });
      return last;
    }
    if (!row) {
      known.delete(key);
      unknown.set(key, beganMs);
      return undefined;
    }
    unknown.delete(key);
    // Nothing is compressed again that has not changed.
    const site =
      row.body === null && old
        ? {
            ...old,
            origins: new Set(row.origins),
            recordedFacts: row.recordedFacts,
            pageParts: row.pageParts,
            madeMs: row.madeMs,
          }
        : await siteOf(row, row.body ?? '');
    if (isCurrent()) known.set(key, { site, atMs: beganMs });
    if (row.body !== null) void keep(key, row, row.body);
    return site;
  }

  /** Keeps a site on disk, with the messages its campaigns show. */
  async function keep(key: string, row: SiteToServe, body: string): Promise<void> {
    await kept.write(`sites/${key}.json`, JSON.stringify({ ...row, body }));
    const { campaigns } = JSON.parse(body) as Manifest;
    const hashes = campaigns.flatMap(({ message, experiment }) => [
      message,
      ...(experiment?.variants ?? []).map((one) => one.message),
    ]);
    for (const hash of hashes) await readMessage(row.id, hash).catch(() => undefined);
  }

  async function readKept(key: string): Promise<EdgeSite | undefined> {
    const text = await kept.read(`sites/${key}.json`);
    if (text === undefined) return undefined;
    const row = JSON.parse(text) as SiteToServe & { readonly body: string };
    return siteOf(row, row.body);
  }

  async function readMessage(siteId: string, hash: string): Promise<string | undefined> {
    const name = `messages/${siteId}/${hash}.json`;
    const here = await kept.read(name);
    if (here !== undefined) return here;
    const body = await source.findMessage(siteId, hash);
    if (body !== undefined) await kept.write(name, body);
    return body;
  }

  function read(key: string): Promise<EdgeSite | undefined> {
    const underWay = reading.get(key);
    if (underWay) return underWay;
    const isCurrent = () => reading.get(key) === work;
    const work: Promise<EdgeSite | undefined> = readSite(key, isCurrent).finally(() => {
      if (isCurrent()) reading.delete(key);
    });
    reading.set(key, work);
    return work;
  }

  return {
    /** The site if it is fresh in memory: answers most requests without waiting for a turn of the event loop. */
    peek(key: string): EdgeSite | undefined {
      const entry = known.get(key);
      return entry && isFresh(entry.atMs) ? entry.site : undefined;
    },
    /** @throws {ProblemError} 503 where the database is away and the site was never known here. */
    async find(key: string): Promise<EdgeSite | undefined> {
      if (!SITE_KEY.test(key)) return undefined;
      const entry = known.get(key);
      if (entry && isFresh(entry.atMs)) return entry.site;
      const missedAtMs = unknown.get(key);
      if (missedAtMs !== undefined && isFresh(missedAtMs)) return undefined;
      const work = read(key);
      if (!entry) return work;
      // A database that answers slowly must not make a known site slow.
      const site = await Promise.race([work, afterMs(PATIENCE_MS, entry.site)]);
      work.catch(() => {});
      return site;
    },
    /** A message of this site's, ready to serve. */
    async message(siteId: string, hash: string): Promise<ServedFile | undefined> {
      if (!HASH.test(hash)) return undefined;
      const name = `${siteId}/${hash}`;
      const ready = messages.get(name);
      if (ready) return ready;
      const made = readMessage(siteId, hash).then((body) =>
        body === undefined ? undefined : servedFile(body, `"${hash}"`),
      );
      messages.set(name, made);
      const forget = () => messages.delete(name);
      // Neither a miss nor a failure is an answer to remember.
      made.then((file) => file ?? forget(), forget);
      return made;
    },
    /** A change was announced: the site is looked at again before it is served the next time. */
    forget(key: string): void {
      reading.delete(key);
      unknown.delete(key);
      const entry = known.get(key);
      if (entry) known.set(key, { ...entry, atMs: Number.NEGATIVE_INFINITY });
    },
    forgetAll(): void {
      reading.clear();
      freshSinceMs = clock();
    },
  };
}
export type SiteDirectory = ReturnType<typeof createSiteDirectory>;

const afterMs = <Value>(ms: number, value: Value): Promise<Value> =>
  new Promise((resolve) => setTimeout(resolve, ms, value).unref());
