import type { SitePage, SiteSettings } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import { countedPath, ownTitles } from '@velarium/core';
import type { DataSource } from 'typeorm';

/**
 * The path under which the catalogue knows a page: as browsers write it, so that it is the one visits tell of, without
 * a slash at its end and without the site's tracking parameters.
 */
export function cataloguePath({ trackingParameters }: SiteSettings): (path: string) => string {
  const tracking = new Set(trackingParameters.map((name) => name.toLowerCase()));
  return (path) => {
    // One that begins with two slashes is a path still, and names no other host.
    const url = new URL(`https://site.example${path}`);
    for (const name of [...url.searchParams.keys()]) {
      if (tracking.has(name.toLowerCase())) url.searchParams.delete(name);
    }
    let end = url.pathname.length;
    while (end > 1 && url.pathname[end - 1] === '/') end--;
    return url.pathname.slice(0, end) + url.search;
  };
}

/** A page as it is put into the catalogue; its views are counted, not given. */
export type CataloguePage = Omit<SitePage, 'views' | 'source'> & {
  readonly source?: Exclude<SitePage['source'], 'visits'>;
};

/**
 * Every page that is known of a site: those of the catalogue and those that only visits have told of, with their views
 * in the last 30 days. Views are counted by path and by the parameters the site says tell its pages apart; pages that
 * differ by other parameters alone share what was counted.
 */
export async function readCatalogue(
  db: DataSource,
  siteId: string,
  settings: SiteSettings,
): Promise<SitePage[]> {
  const seen: { path: string; views: string }[] = await db.query(
    `SELECT path, sum(views) AS views FROM page_day
      WHERE site_id = $1 AND day > (now() AT TIME ZONE 'UTC')::date - 30 GROUP BY path
      ORDER BY views DESC, path LIMIT $2`,
    // A visitor may invent addresses without end; the most visited are kept.
    [siteId, LIMITS.pagesOfSite],
  );
  const known: Omit<SitePage, 'views'>[] = await db.query(
    'SELECT path, title, kind, source FROM site_page WHERE site_id = $1',
    [siteId],
  );
  const counted = countedPath(settings);
  const titleOf = await readTitles(db, siteId);
  const views = new Map(seen.map((row) => [row.path, Number(row.views)]));
  const told = new Set(known.map(({ path }) => counted(path)));
  const pages: SitePage[] = [
    ...known.map(({ title, ...page }) => ({
      ...page,
      // One without a title of its own was put in under its path.
      title: title === page.path ? (titleOf.get(counted(page.path)) ?? title) : title,
      views: views.get(counted(page.path)) ?? 0,
    })),
    ...[...views]
      .filter(([path]) => !told.has(path))
      .map(([path, count]) => ({
        path,
        title: titleOf.get(path) ?? path,
        kind: null,
        source: 'visits' as const,
        views: count,
      })),
  ];
  return pages.sort((a, b) => (a.path < b.path ? -1 : 1)).slice(0, LIMITS.pagesOfSite);
}

/** What pages call themselves, by the path they are counted under, without what the titles of the site have in common. */
async function readTitles(db: DataSource, siteId: string): Promise<ReadonlyMap<string, string>> {
  const said: { path: string; title: string }[] = await db.query(
    `SELECT DISTINCT ON (path) path, title FROM page_title WHERE site_id = $1 AND is_shared
      ORDER BY path, at DESC, title LIMIT $2`,
    [siteId, LIMITS.pagesOfSite],
  );
  const titles = ownTitles(said.map(({ title }) => title));
  return new Map(said.map(({ path }, n) => [path, titles[n] as string]));
}
