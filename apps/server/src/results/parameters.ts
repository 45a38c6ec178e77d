import type { ParameterSeen, SiteSettings } from '@velarium/contract';
import type { DataSource } from 'typeorm';

/** Parameters told of at most. */
const MOST = 12;

/**
 * The parameters in the addresses of the last week's page views that do not only say where somebody came from, with how
 * many page views had them and how many values they had: what may tell pages apart. The caller guards the scope.
 */
export async function readParameters(
  db: DataSource,
  siteId: string,
  { trackingParameters }: SiteSettings,
): Promise<ParameterSeen[]> {
  const rows: { name: string; views: string; values: string }[] = await db.query(
    `SELECT split_part(pair, '=', 1) AS name, count(*) AS views, count(DISTINCT pair) AS values
       FROM event, regexp_split_to_table(split_part(split_part(page, '#', 1), '?', 2), '&') AS pair
      WHERE site_id = $1 AND kind = 'pageview' AND at > now() - interval '7 days' AND page LIKE '%?%'
        AND split_part(pair, '=', 1) <> '' AND lower(split_part(pair, '=', 1)) <> ALL ($2)
      GROUP BY 1 ORDER BY 2 DESC, 1 LIMIT $3`,
    [siteId, trackingParameters.map((name) => name.toLowerCase()), MOST],
  );
  return rows.map(({ name, views, values }) => ({ name, views: Number(views), values: Number(values) }));
}
