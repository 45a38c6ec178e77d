import type { SitePage, SiteSettings } from '@velarium/contract';
import { LIMITS } from '@velarium/contract/values';
import type { DataSource } from 'typeorm';

/**
 * The path under which the catalogue knows a page: as browsers write it, so that it is the one visits tell of, without
 * a slash at its end and without the site's tracking parameters.
 */
export function cataloguePath({ trackingParameters }: SiteSettings): (path: string) => string {
  const tracking = new Set(trackingParameters.map((name) => name.toLowerCase()));
  return (path) => {
    const url = new URL(path, 'https://site.example');
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
 * in the last 30 days. Views are counted by path; a page that differs by its query alone has those of its path.
 */
export async function readCatalogue(db: DataSource, siteId: string): Promise<SitePage[]> {
  const rows: (Omit<SitePage, 'views'> & { views: string })[] = await db.query(
    `WITH seen AS (
       SELECT path, sum(views) AS views FROM page_day
        WHERE site_id = $1 AND day > (now() AT TIME ZONE 'UTC')::date - 30 GROUP BY path)
     SELECT p.path, p.title, p.kind, p.source, coalesce(s.views, 0) AS views
       FROM site_page p LEFT JOIN seen s ON s.path = split_part(p.path, '?', 1) WHERE p.site_id = $1
     UNION ALL
     SELECT s.path, s.path, NULL, 'visits', s.views FROM seen s
      WHERE NOT EXISTS (SELECT 1 FROM site_page p WHERE p.site_id = $1 AND split_part(p.path, '?', 1) = s.path)
     ORDER BY 1 LIMIT $2`,
    [siteId, LIMITS.pagesOfSite],
  );
  return rows.map((row) => ({ ...row, views: Number(row.views) }));
}
