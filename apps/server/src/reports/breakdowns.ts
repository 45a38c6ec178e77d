import type {
  Breakdown,
  CampaignParts,
  CampaignResults,
  CloseWay,
  ResultPart,
  Stretch,
} from '@velarium/contract';
import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { Reads } from '../infra/reader.ts';
import { FIRST_VARIANT } from '../publishing/index.ts';

/** One campaign over a stretch of the site's days. */
export interface CampaignStretch {
  readonly campaignId: string;
  readonly period: Stretch;
  readonly timeZone: string;
}

/** $1 the campaign, $2 and $3 the first and last day. */
const IN_STRETCH = 'campaign_id = $1 AND day BETWEEN $2 AND $3';
const valuesOf = ({ campaignId, period }: CampaignStretch): unknown[] => [
  campaignId,
  period.from,
  period.until,
];

/** What the database tells visitors apart by: page groups are read from their pages, by core. */
type Told = Exclude<Breakdown, 'group'>;
/** Of our own making: nothing of it comes from outside. $4 is the zone. */
const KEYS: Readonly<Record<Told, string>> = {
  device: 'device',
  page: 'page',
  source: 'source',
  country: 'country',
  language: 'language',
  arrival: `CASE WHEN is_new THEN 'new' WHEN NOT is_new THEN 'returning' END`,
  written: 'written',
  cause: 'cause',
  hour: `to_char(first_at AT TIME ZONE $4, 'HH24')`,
  weekday: `to_char(first_at AT TIME ZONE $4, 'ID')`,
  version: 'version::text',
  variant: `nullif(variant, '')`,
};

const LISTED = 40;

interface Parts {
  /** The largest first. */
  readonly parts: ResultPart[];
  /** The same visitors by the version they met first. */
  readonly byVersion: ResultPart[];
}

/**
 * The visitors of a stretch by how they were when they first met the campaign in it, with those of them who converted in it.
 * Whoever converted has met it, also when the news of the showing never came. The largest parts; all where `most` is `null`.
 */
export async function partsOf(
  reads: Reads,
  stretch: CampaignStretch,
  by: Told,
  most: number | null = LISTED,
): Promise<Parts> {
  const rows: { key: string | null; isVersion: boolean; visitors: string; converters: string }[] =
    await reads.query(
      `WITH met AS (
         SELECT DISTINCT ON (visitor) visitor, ${KEYS[by]} AS told, ${KEYS.version} AS version FROM visitor_day
          WHERE ${IN_STRETCH} AND kind = 'shown'
            -- The zone, which not every way of telling them apart asks for.
            AND $4::text IS NOT NULL
          ORDER BY visitor, day),
       converted AS (SELECT DISTINCT visitor FROM visitor_day WHERE ${IN_STRETCH} AND kind = 'converted')
       SELECT * FROM (
         SELECT coalesce(told, met.version) AS key, GROUPING(told) = 1 AS "isVersion", count(*) AS visitors,
                count(converted.visitor) AS converters,
                row_number() OVER (PARTITION BY GROUPING(told) ORDER BY count(*) DESC, coalesce(told, met.version)) AS nth
           FROM met LEFT JOIN converted USING (visitor) GROUP BY GROUPING SETS ((told), (met.version))) AS part
        WHERE nth <= coalesce($5::integer, nth) ORDER BY nth`,
      [...valuesOf(stretch), stretch.timeZone, most],
    );
  const among = (isVersion: boolean) =>
    rows
      .filter((row) => row.isVersion === isVersion)
      .map(({ key, visitors, converters }) => ({
        key,
        visitors: Number(visitors),
        converters: Number(converters),
      }));
  return { parts: among(false), byVersion: among(true) };
}

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
  const rows: { of: 'seconds' | 'depth'; bucket: number; events: string }[] = await reads.query(
    `SELECT of, bucket, sum(events) AS events FROM opened_day WHERE ${IN_STRETCH} GROUP BY of, bucket`,
    valuesOf(stretch),
  );
  const among = (column: 'seconds' | 'depth') => rows.filter(({ of }) => of === column);
  return {
    seconds: histogram(among('seconds'), STAY_SECONDS),
    depth: histogram(among('depth'), STAY_DEPTHS),
  };
}

/** How it went away, and after how many seconds. */
export async function closesOf(reads: Reads, stretch: CampaignStretch): Promise<CampaignResults['closes']> {
  const rows: { way: CloseWay; bucket: number; events: string }[] = await reads.query(
    `SELECT way, bucket, sum(events) AS events FROM closed_day WHERE ${IN_STRETCH} GROUP BY way, bucket`,
    valuesOf(stretch),
  );
  const ways = [...new Set(rows.map(({ way }) => way))];
  return ways
    .map((way) => {
      const own = rows.filter((row) => row.way === way);
      return {
        way,
        events: own.reduce((sum, { events }) => sum + Number(events), 0),
        seconds: histogram(own, STAY_SECONDS),
      };
    })
    .sort((a, b) => b.events - a.events);
}

/** What was clicked and written on the message itself, by its blocks and fields. */
export async function onMessageOf(
  reads: Reads,
  stretch: CampaignStretch,
): Promise<CampaignParts['onMessage']> {
  const rows: { variant: string; part: string; clickers: string; writers: string; gaveUp: string }[] =
    await reads.query(
      `WITH done AS (
         SELECT visitor, kind, part, last_at, coalesce(nullif(variant, ''), '${FIRST_VARIANT}') AS variant FROM touched_day
          WHERE ${IN_STRETCH}),
       converted AS (SELECT DISTINCT visitor FROM visitor_day WHERE ${IN_STRETCH} AND kind = 'converted'),
       -- Where they wrote last, of those who sent nothing.
       last AS (
         SELECT DISTINCT ON (visitor) visitor, variant, part FROM done
          WHERE kind = 'answering' AND visitor NOT IN (SELECT visitor FROM converted)
          ORDER BY visitor, last_at DESC)
       SELECT variant, part, count(DISTINCT visitor) FILTER (WHERE kind = 'clicked') AS clickers,
              count(DISTINCT visitor) FILTER (WHERE kind = 'answering') AS writers,
              (SELECT count(*) FROM last WHERE last.variant = done.variant AND last.part = done.part) AS "gaveUp"
         FROM done GROUP BY variant, part ORDER BY variant, part`,
      valuesOf(stretch),
    );
  if (rows.length === 0) return [];
  const viewers: { variant: string; viewers: string }[] = await reads.query(
    `SELECT coalesce(nullif(variant, ''), '${FIRST_VARIANT}') AS variant, count(DISTINCT visitor) AS viewers FROM visitor_day
      WHERE ${IN_STRETCH} AND kind = 'viewable' GROUP BY 1`,
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
  { campaignId }: CampaignStretch,
  byVersion: readonly ResultPart[],
): Promise<CampaignParts['versions']> {
  const parts = new Map(byVersion.map((part) => [part.key, part]));
  const published: { version: number; at: Date }[] = await reads.query(
    `SELECT version, published_at AS at FROM campaign_version WHERE campaign_id = $1 AND version::text = ANY($2)
      ORDER BY version DESC`,
    [campaignId, [...parts.keys()].filter((key) => key !== null)],
  );
  return published.map(({ version, at }) => {
    const { visitors = 0, converters = 0 } = parts.get(String(version)) ?? {};
    return { version, publishedAt: at.toISOString(), visitors, converters };
  });
}
