import type { Breakdown, CampaignResults, CloseWay, ResultPart, Stretch } from '@velarium/contract';
import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { Reads } from '../infra/reader.ts';
import { FIRST_VARIANT } from '../publishing/index.ts';

/** One campaign over a stretch of the site's days. */
export interface CampaignStretch {
  readonly campaignId: string;
  readonly period: Stretch;
  readonly timeZone: string;
}
const LISTED = 40;

/** $1 the campaign, $2 and $3 the first and last day, $4 the zone. */
const IN_STRETCH = `e.campaign_id = $1 AND e.at >= $2::date::timestamp AT TIME ZONE $4
  AND e.at < ($3::date + 1)::timestamp AT TIME ZONE $4`;
const valuesOf = ({ campaignId, period, timeZone }: CampaignStretch): unknown[] => [
  campaignId,
  period.from,
  period.until,
  timeZone,
];

/** What the database tells visitors apart by: page groups are read from their pages, by core. */
type Told = Exclude<Breakdown, 'group'>;
/** Of our own making: nothing of it comes from outside. */
const KEYS: Readonly<Record<Told, string>> = {
  device: 'e.device',
  page: `split_part(split_part(e.page, '#', 1), '?', 1)`,
  source: `nullif(v.referrer, '')`,
  country: 'v.country',
  language: `nullif(split_part(v.languages, ',', 1), '')`,
  arrival: `CASE WHEN v.number = 1 THEN 'new' WHEN v.number > 1 THEN 'returning' END`,
  written: 'e.language',
  cause: 'e.cause',
  hour: `to_char(e.at AT TIME ZONE $4, 'HH24')`,
  weekday: `to_char(e.at AT TIME ZONE $4, 'ID')`,
  version: 'e.version::text',
  variant: 'e.variant',
};
const OF_VISIT: readonly Told[] = ['source', 'country', 'language', 'arrival'];

/**
 * The visitors of a stretch by how they were when they first met the campaign in it, with those of them who converted in it.
 * Whoever converted has met it, also when the news of the showing never came. The largest parts; all where `most` is `null`.
 */
export async function partsOf(
  reads: Reads,
  stretch: CampaignStretch,
  by: Told,
  most: number | null = LISTED,
): Promise<ResultPart[]> {
  const rows: { key: string | null; visitors: string; converters: string }[] = await reads.query(
    `WITH met AS (
       SELECT DISTINCT ON (e.visitor) e.visitor, ${KEYS[by]} AS key
         FROM event e ${OF_VISIT.includes(by) ? 'LEFT JOIN visit v ON v.site_id = e.site_id AND v.session = e.session' : ''}
        WHERE ${IN_STRETCH} AND e.kind IN ('shown', 'converted')
        ORDER BY e.visitor, e.at),
     converted AS (SELECT DISTINCT e.visitor FROM event e WHERE ${IN_STRETCH} AND e.kind = 'converted')
     SELECT key, count(*) AS visitors, count(converted.visitor) AS converters
       FROM met LEFT JOIN converted USING (visitor) GROUP BY key ORDER BY visitors DESC, key LIMIT $5`,
    [...valuesOf(stretch), most],
  );
  return rows.map(({ key, visitors, converters }) => ({
    key,
    visitors: Number(visitors),
    converters: Number(converters),
  }));
}

const bucketOf = (value: string, edges: readonly number[]): string =>
  `width_bucket(${value}, ARRAY[${edges.join(',')}]::smallint[]) - 1`;
const histogram = (
  rows: readonly { readonly bucket: number; readonly events: string }[],
  edges: readonly number[],
): number[] => {
  const counts = edges.map(() => 0);
  for (const { bucket, events } of rows) if (bucket >= 0) counts[bucket] = Number(events);
  return counts;
};

/** When it opened: seconds in sight, and per cent of the page. */
export async function openedOf(
  reads: Reads,
  stretch: CampaignStretch,
): Promise<{ seconds: number[]; depth: number[] }> {
  const of = async (column: 'seconds' | 'depth', edges: readonly number[]) =>
    histogram(
      await reads.query(
        `SELECT ${bucketOf(`e.${column}`, edges)} AS bucket, count(*) AS events FROM event e
          WHERE ${IN_STRETCH} AND e.kind = 'shown' AND e.${column} IS NOT NULL GROUP BY 1`,
        valuesOf(stretch),
      ),
      edges,
    );
  return { seconds: await of('seconds', STAY_SECONDS), depth: await of('depth', STAY_DEPTHS) };
}

/** How it went away, and after how many seconds. */
export async function closesOf(reads: Reads, stretch: CampaignStretch): Promise<CampaignResults['closes']> {
  const rows: { way: CloseWay; bucket: number | null; events: string }[] = await reads.query(
    `SELECT e.closed_by AS way, ${bucketOf('e.seconds', STAY_SECONDS)} AS bucket, count(*) AS events FROM event e
      WHERE ${IN_STRETCH} AND e.kind = 'closed' AND e.closed_by IS NOT NULL GROUP BY 1, 2`,
    valuesOf(stretch),
  );
  const ways = [...new Set(rows.map(({ way }) => way))];
  return ways
    .map((way) => {
      const own = rows.filter((row) => row.way === way);
      const timed = own.flatMap(({ bucket, events }) => (bucket === null ? [] : [{ bucket, events }]));
      return {
        way,
        events: own.reduce((sum, { events }) => sum + Number(events), 0),
        seconds: histogram(timed, STAY_SECONDS),
      };
    })
    .sort((a, b) => b.events - a.events);
}

/** What was clicked and written on the message itself, by its blocks and fields. */
export async function onMessageOf(
  reads: Reads,
  stretch: CampaignStretch,
): Promise<CampaignResults['onMessage']> {
  const rows: { variant: string; part: string; clickers: string; writers: string; gaveUp: string }[] =
    await reads.query(
      `WITH done AS (
         SELECT e.visitor, e.kind, e.part, e.at, coalesce(e.variant, '${FIRST_VARIANT}') AS variant FROM event e
          WHERE ${IN_STRETCH} AND e.kind IN ('clicked', 'answering') AND e.part IS NOT NULL),
       converted AS (SELECT DISTINCT e.visitor FROM event e WHERE ${IN_STRETCH} AND e.kind = 'converted'),
       -- Where they wrote last, of those who sent nothing.
       last AS (
         SELECT DISTINCT ON (visitor) visitor, variant, part FROM done
          WHERE kind = 'answering' AND visitor NOT IN (SELECT visitor FROM converted)
          ORDER BY visitor, at DESC)
       SELECT variant, part, count(DISTINCT visitor) FILTER (WHERE kind = 'clicked') AS clickers,
              count(DISTINCT visitor) FILTER (WHERE kind = 'answering') AS writers,
              (SELECT count(*) FROM last WHERE last.variant = done.variant AND last.part = done.part) AS "gaveUp"
         FROM done GROUP BY variant, part ORDER BY variant, part`,
      valuesOf(stretch),
    );
  if (rows.length === 0) return [];
  const viewers: { variant: string; viewers: string }[] = await reads.query(
    `SELECT coalesce(e.variant, '${FIRST_VARIANT}') AS variant, count(DISTINCT e.visitor) AS viewers FROM event e
      WHERE ${IN_STRETCH} AND e.kind = 'viewable' GROUP BY 1`,
    valuesOf(stretch),
  );
  return [...new Set(rows.map(({ variant }) => variant))].map((variant) => ({
    variant,
    viewers: Number(viewers.find((one) => one.variant === variant)?.viewers ?? 0),
    parts: rows
      .filter((row) => row.variant === variant)
      .map(({ part, clickers, writers, gaveUp }) => ({
        part,
        clickers: Number(clickers),
        writers: Number(writers),
        gaveUp: Number(gaveUp),
      })),
  }));
}

/** What each version that was met in the stretch did, the latest first. */
export async function versionsOf(
  reads: Reads,
  stretch: CampaignStretch,
): Promise<CampaignResults['versions']> {
  const parts = new Map((await partsOf(reads, stretch, 'version')).map((part) => [part.key, part]));
  const published: { version: number; at: Date }[] = await reads.query(
    `SELECT version, published_at AS at FROM campaign_version WHERE campaign_id = $1 AND version::text = ANY($2)
      ORDER BY version DESC`,
    [stretch.campaignId, [...parts.keys()].filter((key) => key !== null)],
  );
  return published.map(({ version, at }) => {
    const { visitors = 0, converters = 0 } = parts.get(String(version)) ?? {};
    return { version, publishedAt: at.toISOString(), visitors, converters };
  });
}
