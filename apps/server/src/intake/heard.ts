import { tidyTitle } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import { Recent } from '../infra/recent.ts';

/** What is told of pages beside their events. */
export interface HeardPage {
  readonly siteId: string;
  readonly visitor: string;
  /** As pages are counted. */
  readonly path: string;
  readonly title: string;
}

/** How long what was heard waits for more; what a process that ends has not written is heard again. */
const WRITTEN_AFTER_MS = 1000;
/** Titles, and campaigns shown to robots, waiting at most, and titles that were written and need not be again. */
const WAITING = 5000;
const WRITTEN = 50_000;
/** The longest path of a page whose title is kept, UTF-16 units: an index takes no more. */
const LONGEST_PATH = 1000;

interface Manifests {
  calls: number;
  outdated: number;
  oldestMs: number | null;
}

/**
 * Notes what pages call themselves, which manifest they run and what robots were shown, some time after it came: none of it is
 * counted among visitors, all of it may be lost, and nobody waits for it.
 */
export function createHeard(db: DataSource) {
  let titles = new Map<string, HeardPage>();
  let manifests = new Map<string, Manifests>();
  /** Showings to robots, by site and campaign. */
  let robots = new Map<string, { readonly siteId: string; readonly campaign: string; showings: number }>();
  const written = new Recent<true>(WRITTEN);
  let timer: NodeJS.Timeout | undefined;

  const plan = () => {
    timer ??= setTimeout(() => void flush().catch(() => {}), WRITTEN_AFTER_MS).unref();
  };

  async function flush(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    const said = [...titles.values()];
    const ran = [...manifests];
    const unseen = [...robots.values()];
    titles = new Map();
    manifests = new Map();
    robots = new Map();
    if (said.length > 0)
      await db.query(
        `INSERT INTO page_title (site_id, path, title, visitor)
         SELECT * FROM unnest($1::uuid[], $2::text[], $3::text[], $4::text[])
         ON CONFLICT (site_id, path, title) DO UPDATE
           SET at = now(), is_shared = page_title.is_shared OR page_title.visitor <> excluded.visitor,
               -- Whoever said it first need not be known any more.
               visitor = CASE WHEN page_title.visitor = excluded.visitor THEN excluded.visitor ELSE '' END`,
        [
          said.map((one) => one.siteId),
          said.map((one) => one.path),
          said.map((one) => one.title),
          said.map((one) => one.visitor),
        ],
      );
    if (ran.length > 0)
      await db.query(
        `INSERT INTO manifest_day (site_id, day, calls, outdated, oldest)
         SELECT site_id, (now() AT TIME ZONE 'UTC')::date, calls, outdated, to_timestamp(oldest / 1000.0)
           FROM unnest($1::uuid[], $2::integer[], $3::integer[], $4::double precision[]) AS heard (site_id, calls, outdated, oldest)
         ON CONFLICT (site_id, day) DO UPDATE
           SET calls = manifest_day.calls + excluded.calls, outdated = manifest_day.outdated + excluded.outdated,
               oldest = least(manifest_day.oldest, excluded.oldest)`,
        [
          ran.map(([siteId]) => siteId),
          ran.map(([, one]) => one.calls),
          ran.map(([, one]) => one.outdated),
          ran.map(([, one]) => one.oldestMs),
        ],
      );
    if (unseen.length > 0)
      await db.query(
        // A robot names what it likes: only campaigns of its site are counted.
        `INSERT INTO robot_day (site_id, campaign_id, day, showings)
         SELECT campaign.site_id, campaign.id, (now() AT TIME ZONE 'UTC')::date, heard.showings
           FROM unnest($1::uuid[], $2::uuid[], $3::integer[]) AS heard (site_id, campaign_id, showings)
           JOIN campaign ON campaign.id = heard.campaign_id AND campaign.site_id = heard.site_id
         ON CONFLICT (site_id, campaign_id, day) DO UPDATE SET showings = robot_day.showings + excluded.showings`,
        [
          unseen.map((one) => one.siteId),
          unseen.map((one) => one.campaign),
          unseen.map((one) => one.showings),
        ],
      );
  }

  return {
    title({ title: said, ...page }: HeardPage): void {
      const title = tidyTitle(said);
      if (title === '' || page.path.length > LONGEST_PATH || titles.size >= WAITING) return;
      const key = `${page.siteId} ${page.path} ${title} ${page.visitor}`;
      if (written.get(key)) return;
      written.set(key, true);
      // Two of one statement must not meet on a row; who says the same next time is heard then.
      const row = `${page.siteId} ${page.path} ${title}`;
      if (titles.get(row) && titles.get(row)?.visitor !== page.visitor) written.delete(key);
      else titles.set(row, { ...page, title });
      plan();
    },
    /** A page view came from a page that runs a manifest made at this time, where that was replaced long ago. */
    manifest(siteId: string, outdatedMs: number | null): void {
      const one = manifests.get(siteId) ?? { calls: 0, outdated: 0, oldestMs: null };
      one.calls++;
      if (outdatedMs !== null) {
        one.outdated++;
        one.oldestMs = Math.min(outdatedMs, one.oldestMs ?? outdatedMs);
      }
      manifests.set(siteId, one);
      plan();
    },
    /** A robot says that it was shown a campaign. */
    robot(siteId: string, campaign: string): void {
      const key = `${siteId} ${campaign}`;
      const one = robots.get(key) ?? { siteId, campaign, showings: 0 };
      if (!robots.has(key) && robots.size >= WAITING) return;
      one.showings++;
      robots.set(key, one);
      plan();
    },
    flush,
  };
}

/** Titles of one page that are kept: some pages count up in theirs. */
const TITLES_OF_PAGE = 8;

/** Lets go of what was heard before a time, and of all but the latest titles of a page. */
export async function forgetHeard(manager: EntityManager, before: Date): Promise<void> {
  await manager.query(`SET LOCAL statement_timeout = '10min'`);
  await manager.query('DELETE FROM manifest_day WHERE day < $1::date', [before]);
  // No experiment is looked at for longer than a year while it runs.
  await manager.query("DELETE FROM robot_day WHERE day < $1::date - interval '1 year'", [before]);
  // A page that nobody has been to for a year needs no name.
  await manager.query(
    "DELETE FROM page_title WHERE at < CASE WHEN is_shared THEN $1::timestamptz - interval '1 year' ELSE $1 END",
    [before],
  );
  await manager.query(
    `DELETE FROM page_title USING (
       SELECT site_id, path, title, row_number() OVER (PARTITION BY site_id, path ORDER BY is_shared DESC, at DESC) AS nth
         FROM page_title) AS listed
      WHERE listed.nth > $1 AND page_title.site_id = listed.site_id AND page_title.path = listed.path
        AND page_title.title = listed.title`,
    [TITLES_OF_PAGE],
  );
}
