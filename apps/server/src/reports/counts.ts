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
/** Which column says how often something happened. */
const HAPPENED = {
  showings: 'shown',
  clicks: 'clicked',
  closes: 'closed',
  closedSoon: 'closed_soon',
  conversions: 'converted',
} as const satisfies Partial<Record<keyof ResultCounts, string>>;
/** And which of how many visitors. */
const VISITORS = {
  visitors: 'shown',
  viewers: 'viewable',
  clickers: 'clicked',
  writers: 'answering',
  converters: 'converted',
  withheld: 'held',
} as const satisfies Partial<Record<keyof ResultCounts, string>>;

const sums = (columns: Readonly<Record<string, string>>): string =>
  Object.entries(columns)
    .map(([name, column]) => `sum(${column}) AS "${name}"`)
    .join(', ');
const each = (sign: '' | '-'): string =>
  Object.values(VISITORS)
    .map((column) => sign + column)
    .join(', ');

/**
 * Visitors of the stretch from $2 to $3, each on the first of their days in it. Either they are those whose day in it follows
 * one before it; or all who were seen since it began, but those who came first after it. Both say the same: the one of fewer
 * days is asked.
 */
const WITHIN = `SELECT campaign_id, ${each('')} FROM reach_day
  WHERE campaign_id = ANY($1::uuid[]) AND day BETWEEN $2 AND $3 AND before < $2`;
const SINCE = `SELECT campaign_id, ${each('')} FROM last_day WHERE campaign_id = ANY($1::uuid[]) AND day >= $2
  UNION ALL
  SELECT campaign_id, ${each('-')} FROM reach_day WHERE campaign_id = ANY($1::uuid[]) AND day > $3 AND before < $2`;

const daysBetween = (from: string, until: string) => (Date.parse(until) - Date.parse(from)) / 86_400_000;
const isLately = ({ from, until }: Stretch): boolean =>
  daysBetween(until, new Date().toISOString().slice(0, 10)) <= daysBetween(from, until);

/** What happened with campaigns in a stretch of days; visitors are those of the stretch, whenever they first came. */
export async function countsOf(
  reads: Reads,
  campaigns: readonly string[],
  { from, until }: Stretch,
): Promise<(campaignId: string) => ResultCounts> {
  const rows: ({ id: string } & Record<keyof ResultCounts, string | null>)[] = await reads.query(
    `WITH happened AS (
       SELECT campaign_id AS id, ${sums(HAPPENED)} FROM campaign_day
        WHERE campaign_id = ANY($1::uuid[]) AND day BETWEEN $2 AND $3 GROUP BY campaign_id),
     met AS (
       SELECT campaign_id AS id, ${sums(VISITORS)}
         FROM (${isLately({ from, until }) ? SINCE : WITHIN}) AS one GROUP BY campaign_id)
     SELECT * FROM happened FULL JOIN met USING (id)`,
    [campaigns, from, until],
  );
  const names = Object.keys(NOTHING) as (keyof ResultCounts)[];
  const found = new Map(
    rows.map(({ id, ...counts }) => [
      id,
      Object.fromEntries(names.map((name) => [name, Number(counts[name] ?? 0)])) as ResultCounts,
    ]),
  );
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
            sum(shown) AS showings, sum(converted) AS conversions
       FROM ${isOneDay ? 'campaign_hour' : 'campaign_day'}
      WHERE campaign_id = ANY($1::uuid[]) AND day BETWEEN $2 AND $3
      GROUP BY 1 HAVING sum(shown) + sum(converted) > 0 ORDER BY 1`,
    [campaigns, from, until],
  );
  return rows.map(({ at, showings, conversions }) => ({
    at,
    showings: Number(showings),
    conversions: Number(conversions),
  }));
}
