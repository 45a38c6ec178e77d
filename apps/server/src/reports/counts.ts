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

/** Whose counts are asked for: one campaign's, or those of every campaign of a site. */
export interface Whose {
  readonly of: 'campaign' | 'site';
  readonly id: string;
}
/** Which rows are theirs; $1 is whose. The campaigns of a site are found there, rather than told one by one. */
export const OWN: Readonly<Record<Whose['of'], string>> = {
  campaign: 'campaign_id = $1',
  site: 'campaign_id = ANY(ARRAY(SELECT id FROM campaign WHERE site_id = $1))',
};

/**
 * Visitors of the stretch from $2 to $3, each on the first of their days in it. Either they are those whose day in it follows
 * one before it; or all who were seen since it began, but those who came first after it. Both say the same: the one of fewer
 * days is asked.
 */
const within = (own: string) => `SELECT campaign_id, ${each('')} FROM reach_day
  WHERE ${own} AND day BETWEEN $2 AND $3 AND before < $2`;
const since = (own: string) => `SELECT campaign_id, ${each('')} FROM last_day WHERE ${own} AND day >= $2
  UNION ALL
  SELECT campaign_id, ${each('-')} FROM reach_day WHERE ${own} AND day > $3 AND before < $2`;

const daysBetween = (from: string, until: string) => (Date.parse(until) - Date.parse(from)) / 86_400_000;
const isLately = ({ from, until }: Stretch): boolean =>
  daysBetween(until, new Date().toISOString().slice(0, 10)) <= daysBetween(from, until);

interface Happened {
  /** What happened with a campaign. */
  readonly counts: (campaignId: string) => ResultCounts;
  /** Showings and conversions of each day that has any, or of each hour of a single day. */
  readonly points: ResultPoint[];
}
type Sums = Record<keyof ResultCounts, string | null>;

/** What happened with campaigns in a stretch of days; visitors are those of the stretch, whenever they first came. */
export async function happenedIn(reads: Reads, whose: Whose, { from, until }: Stretch): Promise<Happened> {
  const isOneDay = from === until;
  const own = OWN[whose.of];
  // One look at the days says both what each campaign did and what was done on each of them.
  const rows: ({ id: string | null; at: string | null } & Sums)[] = await reads.query(
    `WITH happened AS (
       SELECT campaign_id AS id, day, ${sums(HAPPENED)} FROM campaign_day
        WHERE ${own} AND day BETWEEN $2 AND $3
        GROUP BY GROUPING SETS ((campaign_id), (day))),
     met AS (
       SELECT campaign_id AS id, ${sums(VISITORS)}
         FROM (${(isLately({ from, until }) ? since : within)(own)}) AS one GROUP BY campaign_id)
     SELECT *, to_char(day, 'YYYY-MM-DD') AS at FROM happened FULL JOIN met USING (id)`,
    [whose.id, from, until],
  );
  const names = Object.keys(NOTHING) as (keyof ResultCounts)[];
  const found = new Map(
    rows.flatMap(({ id, ...row }) =>
      id === null
        ? []
        : [[id, Object.fromEntries(names.map((name) => [name, Number(row[name] ?? 0)])) as ResultCounts]],
    ),
  );
  return {
    counts: (id) => found.get(id) ?? NOTHING,
    points: isOneDay
      ? await hoursOf(reads, whose, from)
      : pointsOf(rows.filter((row): row is typeof row & { at: string } => row.at !== null)),
  };
}

async function hoursOf(reads: Reads, whose: Whose, day: string): Promise<ResultPoint[]> {
  const rows: { at: string; showings: string; conversions: string }[] = await reads.query(
    `SELECT $2 || 'T' || lpad(hour::text, 2, '0') AS at, sum(shown) AS showings, sum(converted) AS conversions
       FROM campaign_hour WHERE ${OWN[whose.of]} AND day = $2::date GROUP BY hour`,
    [whose.id, day],
  );
  return pointsOf(rows);
}

const pointsOf = (
  rows: readonly {
    readonly at: string;
    readonly showings: string | null;
    readonly conversions: string | null;
  }[],
): ResultPoint[] =>
  rows
    .map(({ at, showings, conversions }) => ({
      at,
      showings: Number(showings),
      conversions: Number(conversions),
    }))
    .filter(({ showings, conversions }) => showings + conversions > 0)
    .sort((a, b) => (a.at < b.at ? -1 : 1));
