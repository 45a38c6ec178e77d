import type { AudienceQuestion, AudienceShare, Browser, SeenValues, System } from '@velarium/contract';
import {
  audienceShare,
  type RecordedVisit,
  type RecordedVisitor,
  reckonVisitors,
  seenValues,
} from '@velarium/core';
import type { DataSource } from 'typeorm';
import { sourceOfVisit } from '../infra/referrer-kind.ts';
import { countEvents } from './count-events.ts';

/** Visits looked at to answer one question: ids are random, so those of the smallest ids are a fair sample. */
const SAMPLE = 5000;

interface Sample {
  readonly visitors: readonly RecordedVisitor[];
  /** All of the last 30 days, reckoned where there are more than were read. */
  readonly total: number;
  readonly isSample: boolean;
}

interface VisitRow {
  visitor: string;
  started_at: Date;
  views: number;
  number: number | null;
  landing: string | null;
  referrer: string | null;
  country: string | null;
  languages: string | null;
  browser: Browser | null;
  system: System | null;
  signed_in: boolean | null;
  basket_items: number | null;
  basket_total: number | null;
  attributes: Record<string, string> | null;
}

/** The part of a campaign's visitors each word of a condition is kept in. */
const HISTORY_KINDS = { shown: 'seen', closed: 'closed', converted: 'converted' } as const;
type First = ReturnType<RecordedVisitor['first']>;

/**
 * Reads visitors of the last 30 days with their visits, as many as {@link SAMPLE} visits hold, and what these visitors
 * have done with the campaigns asked about. The caller guards the scope.
 */
async function readSample(db: DataSource, siteId: string, campaigns: readonly string[]): Promise<Sample> {
  const rows: VisitRow[] = await db.query(
    `SELECT visitor, started_at, views, number, landing, referrer, country, languages, browser, system, signed_in,
            basket_items, basket_total, attributes
       FROM visit WHERE site_id = $1 AND started_at > now() - interval '30 days'
      ORDER BY visitor LIMIT $2`,
    [siteId, SAMPLE + 1],
  );
  const byVisitor = new Map<string, VisitRow[]>();
  for (const row of rows) byVisitor.set(row.visitor, [...(byVisitor.get(row.visitor) ?? []), row]);
  const isSample = rows.length > SAMPLE;
  // Of the last one there may be more visits than were read.
  const boundary = isSample ? (rows.at(-1)?.visitor ?? '') : '';
  byVisitor.delete(boundary);
  const firsts = await readFirsts(db, siteId, campaigns, [...byVisitor.keys()].at(-1));
  const visitors = [...byVisitor].map(
    ([visitor, visits]): RecordedVisitor => ({
      visits: visits.map(visitOf),
      first: (campaign) => firsts.get(`${campaign} ${visitor}`) ?? {},
    }),
  );
  return {
    visitors,
    total: isSample ? reckonVisitors(visitors.length, boundary) : visitors.length,
    isSample,
  };
}

/** When visitors up to `last` first saw, closed and converted on these campaigns of the site. */
async function readFirsts(
  db: DataSource,
  siteId: string,
  campaigns: readonly string[],
  last: string | undefined,
): Promise<ReadonlyMap<string, First>> {
  const firsts = new Map<string, First>();
  if (campaigns.length === 0 || last === undefined) return firsts;
  await countEvents(db);
  const rows: { campaign_id: string; visitor: string; kind: keyof typeof HISTORY_KINDS; first_at: Date }[] =
    await db.query(
      `SELECT campaign_id, visitor, kind, min(first_at) AS first_at FROM visitor_day
        JOIN campaign ON campaign.id = campaign_id AND site_id = $1
       WHERE campaign_id = ANY($2::uuid[]) AND kind = ANY($3::text[]) AND visitor <= $4
       GROUP BY campaign_id, visitor, kind`,
      [siteId, campaigns, Object.keys(HISTORY_KINDS), last],
    );
  for (const { campaign_id, visitor, kind, first_at } of rows) {
    const key = `${campaign_id} ${visitor}`;
    firsts.set(key, { ...firsts.get(key), [HISTORY_KINDS[kind]]: first_at.getTime() });
  }
  return firsts;
}

function visitOf(row: VisitRow): RecordedVisit {
  const address = row.landing ?? '';
  const queryAt = address.indexOf('?');
  const landing = queryAt < 0 ? address : address.slice(0, queryAt);
  const query = queryAt < 0 ? '' : address.slice(queryAt + 1);
  const arrival: Record<string, string> = Object.fromEntries(new URLSearchParams(query));
  return {
    startedAtMs: row.started_at.getTime(),
    views: row.views,
    number: row.number,
    landing: landing.replace(/(?<!\/)\/+$/, '') || '/',
    arrival,
    referrer: row.referrer,
    source: row.referrer === null ? null : sourceOfVisit(row.referrer, arrival),
    country: row.country,
    languages: row.languages ? row.languages.split(',') : [],
    browser: row.browser ?? 'other',
    system: row.system ?? 'other',
    signedIn: row.signed_in,
    basket: row.basket_items === null ? null : { items: row.basket_items, total: row.basket_total ?? 0 },
    attributes: row.attributes ?? {},
  };
}

/** How many of the last 30 days' visitors an audience would hold. The caller guards the scope. */
export async function readAudienceShare(
  db: DataSource,
  siteId: string,
  { audience, campaign }: AudienceQuestion,
): Promise<AudienceShare> {
  const mentioned = audience.groups.flatMap(({ items }) =>
    items.flatMap(({ condition }) => (condition.kind === 'campaign' ? (condition.id ?? campaign) : [])),
  );
  const { visitors, total, isSample } = await readSample(db, siteId, mentioned);
  return { ...audienceShare({ audience, visitors, campaign }), visitors: total, isSample };
}

/** What these visitors came with and were told of. The caller guards the scope. */
export async function readSeenValues(db: DataSource, siteId: string): Promise<SeenValues> {
  return seenValues((await readSample(db, siteId, [])).visitors);
}
