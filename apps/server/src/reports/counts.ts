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
const OWN: Readonly<Record<Whose['of'], string>> = {
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
/** Of one campaign on all the days, or of all campaigns on one of them, or in an hour. */
type Happening = Readonly<Record<'id' | 'at', string | null> & Record<keyof typeof HAPPENED, number>>;

/** Rows as one text: hundreds of them are read from it in a fraction of the time that cell by cell takes. */
async function rowsOf<One>(reads: Reads, sql: string, values: readonly unknown[]): Promise<readonly One[]> {
  const [{ rows }]: [{ rows: readonly One[] }] = await reads.query(
    `SELECT coalesce(json_agg(one), '[]') AS rows FROM (${sql}) AS one`,
    [...values],
  );
  return rows;
}

/** What happened with campaigns in a stretch of days; visitors are those of the stretch, whenever they first came. */
export async function happenedIn(reads: Reads, whose: Whose, stretch: Stretch): Promise<Happened> {
  const { from, until } = stretch;
  const own = OWN[whose.of];
  const days = [whose.id, from, until];
  const [table, moment, at] =
    from === until
      ? ['campaign_hour', 'day, hour', `to_char(day + hour * interval '1 hour', 'YYYY-MM-DD"T"HH24')`]
      : ['campaign_day', 'day', 'day'];
  // Questions of their own, so that the database answers them side by side.
  const [happened, met] = await Promise.all([
    // One look says both what each campaign did and what was done on each day, or in each hour.
    rowsOf<Happening>(
      reads,
      `SELECT campaign_id AS id, ${at} AS at, ${sums(HAPPENED)} FROM ${table}
        WHERE ${own} AND day BETWEEN $2 AND $3
        GROUP BY GROUPING SETS ((campaign_id), (${moment}))`,
      days,
    ),
    rowsOf<Readonly<Record<'id', string> & Record<keyof typeof VISITORS, number>>>(
      reads,
      `SELECT campaign_id AS id, ${sums(VISITORS)}
         FROM (${(isLately(stretch) ? since : within)(own)}) AS one GROUP BY campaign_id`,
      days,
    ),
  ]);
  const found = new Map<string, ResultCounts>();
  for (const { id, at: _at, ...counts } of happened)
    if (id !== null) found.set(id, { ...NOTHING, ...counts });
  for (const { id, ...counts } of met) found.set(id, { ...(found.get(id) ?? NOTHING), ...counts });
  return { counts: (id) => found.get(id) ?? NOTHING, points: pointsOf(happened) };
}

const pointsOf = (rows: readonly Happening[]): ResultPoint[] =>
  rows
    .flatMap(({ at, showings, conversions }) =>
      at !== null && showings + conversions > 0 ? { at, showings, conversions } : [],
    )
    .sort((a, b) => (a.at < b.at ? -1 : 1));
