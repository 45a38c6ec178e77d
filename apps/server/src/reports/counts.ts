import type { ResultCounts, ResultPoint, Stretch } from '@velarium/contract';
import type { Reads } from '../infra/reader.ts';

const NOTHING: ResultCounts = {
  showings: 0,
  clicks: 0,
  closes: 0,
  closedSoon: 0,
  conversions: 0,
  visitors: 0,
  viewers: 0,
  clickers: 0,
  writers: 0,
  converters: 0,
  withheld: 0,
};
/** Which number an event of a kind counts towards, and which its visitor. */
const EVENTS = {
  shown: 'showings',
  clicked: 'clicks',
  closed: 'closes',
  closedSoon: 'closedSoon',
  converted: 'conversions',
} as const;
const VISITORS = {
  shown: 'visitors',
  viewable: 'viewers',
  clicked: 'clickers',
  answering: 'writers',
  converted: 'converters',
  held: 'withheld',
} as const;

/**
 * Visitors of the stretch from $2 to $3, each on the first of their days in it. Either they are those whose day in it follows
 * one before it; or all who were seen since it began, but those who came first after it. Both say the same: the one of fewer
 * days is asked.
 */
const WITHIN = `SELECT campaign_id, kind, visitors FROM reach_day
  WHERE campaign_id = ANY($1::uuid[]) AND kind = ANY($4) AND day BETWEEN $2 AND $3 AND before < $2`;
const SINCE = `
  SELECT campaign_id, kind, visitors FROM last_day
   WHERE campaign_id = ANY($1::uuid[]) AND kind = ANY($4) AND day >= $2 AND $3::date IS NOT NULL
  UNION ALL
  SELECT campaign_id, kind, -visitors FROM reach_day
   WHERE campaign_id = ANY($1::uuid[]) AND kind = ANY($4) AND day > $3 AND before < $2`;

const daysBetween = (from: string, until: string) => (Date.parse(until) - Date.parse(from)) / 86_400_000;
const isLately = ({ from, until }: Stretch): boolean =>
  daysBetween(until, new Date().toISOString().slice(0, 10)) <= daysBetween(from, until);

/** What happened with campaigns in a stretch of days; visitors are those of the stretch, whenever they first came. */
export async function countsOf(
  reads: Reads,
  campaigns: readonly string[],
  { from, until }: Stretch,
): Promise<(campaignId: string) => ResultCounts> {
  const events: { id: string; kind: keyof typeof EVENTS; count: string }[] = await reads.query(
    `SELECT campaign_id AS id, kind, sum(events) AS count FROM campaign_day
      WHERE campaign_id = ANY($1::uuid[]) AND day BETWEEN $2 AND $3 AND kind = ANY($4) GROUP BY campaign_id, kind`,
    [campaigns, from, until, Object.keys(EVENTS)],
  );
  const visitors: { id: string; kind: keyof typeof VISITORS; count: string }[] = await reads.query(
    `SELECT campaign_id AS id, kind, sum(visitors) AS count
       FROM (${isLately({ from, until }) ? SINCE : WITHIN}) AS one GROUP BY campaign_id, kind`,
    [campaigns, from, until, Object.keys(VISITORS)],
  );
  const found = new Map<string, ResultCounts>();
  const put = (id: string, change: Partial<ResultCounts>) =>
    found.set(id, { ...(found.get(id) ?? NOTHING), ...change });
  for (const { id, kind, count } of events) put(id, { [EVENTS[kind]]: Number(count) });
  for (const { id, kind, count } of visitors) put(id, { [VISITORS[kind]]: Number(count) });
  return (id) => found.get(id) ?? NOTHING;
}

/** Showings and conversions over a stretch: of each day that has any, or of each hour of a single day. */
export async function pointsOf(
  reads: Reads,
  campaigns: readonly string[],
  { from, until }: Stretch,
): Promise<ResultPoint[]> {
  const isOneDay = from === until;
  const rows: { at: string; showings: string; conversions: string }[] = await reads.query(
    `SELECT to_char(day, 'YYYY-MM-DD') ${isOneDay ? `|| 'T' || lpad(hour::text, 2, '0')` : ''} AS at,
            coalesce(sum(events) FILTER (WHERE kind = 'shown'), 0) AS showings,
            coalesce(sum(events) FILTER (WHERE kind = 'converted'), 0) AS conversions
       FROM ${isOneDay ? 'campaign_hour' : 'campaign_day'}
      WHERE campaign_id = ANY($1::uuid[]) AND day BETWEEN $2 AND $3 AND kind IN ('shown', 'converted')
      GROUP BY 1 ORDER BY 1`,
    [campaigns, from, until],
  );
  return rows.map(({ at, showings, conversions }) => ({
    at,
    showings: Number(showings),
    conversions: Number(conversions),
  }));
}
