import { randomUUID } from 'node:crypto';
import type { PageReading } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import type { JobData, Jobs } from '../infra/jobs.ts';
import { OutsideError } from '../infra/network.ts';
import type { ReadOutside } from '../infra/outside.ts';
import { cataloguePath } from './catalogue.ts';
import type { SiteRow } from './entities.ts';
import { learnPages, type PagesLearned } from './learn-pages.ts';

/** How often progress is written down, and a wish to stop looked for. */
const TOLD_EVERY_MS = 400;

interface ReadingRow {
  readonly id: string;
  readonly state: PageReading['state'];
  readonly found: number;
  readonly read: number;
  readonly unread: number;
  readonly fault: string | null;
  readonly sitemap: string | null;
  readonly source: string | null;
  readonly updated_at: Date;
}

const plain = ({ id, state, found, read, unread, fault, source, updated_at }: ReadingRow): PageReading => ({
  id,
  state,
  found,
  read,
  unread,
  fault,
  source,
  updatedAt: updated_at.toISOString(),
});

/**
 * Readings of sites' pages: asked for in the studio, done by the worker role, told of as they go on, stopped when
 * somebody wants it. Callers have made sure that the site is the workspace's.
 */
export function createPageReadings(
  db: DataSource,
  jobs: Jobs,
  readOutside: ReadOutside,
  store: (siteId: string, learned: PagesLearned) => Promise<void>,
) {
  const find = async (siteId: string): Promise<PageReading | null> => {
    const [row]: ReadingRow[] = await db.query('SELECT * FROM page_reading WHERE site_id = $1', [siteId]);
    return row ? plain(row) : null;
  };
  /** Changes the reading as long as it is this one that goes on; whether it is, and wants to. */
  const note = async (
    { siteId, readingId }: JobData['read-pages'],
    change: Partial<Pick<PageReading, 'state' | 'found' | 'read' | 'unread' | 'fault' | 'source'>>,
  ): Promise<boolean> => {
    const [rows]: [{ is_stop_wanted: boolean }[], number] = await db.query(
      `UPDATE page_reading SET state = coalesce($3, state), found = coalesce($4, found), read = coalesce($5, read),
              unread = coalesce($6, unread), fault = $7, source = coalesce($8, source), updated_at = now()
        WHERE site_id = $1 AND id = $2 AND state IN ('waiting', 'running') RETURNING is_stop_wanted`,
      [
        siteId,
        readingId,
        change.state ?? null,
        change.found ?? null,
        change.read ?? null,
        change.unread ?? null,
        change.fault ?? null,
        change.source ?? null,
      ],
    );
    return rows[0] !== undefined && !rows[0].is_stop_wanted;
  };

  return {
    find,
    /** Asks for a reading; one that is under way is given up for it. */
    async begin(siteId: string, sitemap: string | null): Promise<PageReading | null> {
      const readingId = randomUUID();
      await db.transaction(async (manager) => {
        await manager.query(
          `INSERT INTO page_reading (site_id, id, state, sitemap) VALUES ($1, $2, 'waiting', $3)
           ON CONFLICT (site_id) DO UPDATE
             SET id = excluded.id, state = 'waiting', found = 0, read = 0, unread = 0, fault = NULL,
                 sitemap = excluded.sitemap, source = NULL, is_stop_wanted = false, updated_at = now()`,
          [siteId, readingId, sitemap],
        );
        await jobs.send(manager, 'read-pages', { siteId, readingId });
      });
      return find(siteId);
    },
    async stop(siteId: string): Promise<PageReading | null> {
      await db.query(
        `UPDATE page_reading SET is_stop_wanted = true, state = CASE state WHEN 'waiting' THEN 'stopped' ELSE state END
          WHERE site_id = $1 AND state IN ('waiting', 'running')`,
        [siteId],
      );
      return find(siteId);
    },

    /** Does one reading, in the worker. */
    async read(job: JobData['read-pages'], { origins, settings }: SiteRow): Promise<void> {
      if (!(await note(job, { state: 'running' }))) return;
      const [wanted]: Pick<ReadingRow, 'sitemap'>[] = await db.query(
        'SELECT sitemap FROM page_reading WHERE site_id = $1 AND id = $2',
        [job.siteId, job.readingId],
      );
      const stop = new AbortController();
      let latest = { found: 0, read: 0, unread: 0 };
      const timer = setInterval(async () => {
        const goesOn = await note(job, latest).catch(() => true);
        if (!goesOn) stop.abort();
      }, TOLD_EVERY_MS);
      try {
        const learned = await learnPages(readOutside, origins[0] ?? '', {
          signal: stop.signal,
          sitemap: wanted?.sitemap ?? null,
          pathOf: cataloguePath(settings),
          onProgress: (found, read, unread) => {
            latest = { found, read, unread };
          },
        });
        if (!(await note(job, latest))) stop.abort();
        stop.signal.throwIfAborted();
        await store(job.siteId, learned);
        await note(job, { ...latest, state: 'done', source: learned.source });
      } catch (error) {
        if (stop.signal.aborted) await note(job, { state: 'stopped' });
        else if (error instanceof OutsideError) await note(job, { state: 'failed', fault: error.message });
        else {
          await note(job, { state: 'failed', fault: 'Something went wrong here. It has been noted.' });
          throw error;
        }
      } finally {
        clearInterval(timer);
      }
    },
  };
}
