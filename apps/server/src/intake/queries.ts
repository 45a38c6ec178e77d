import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { EntityManager } from 'typeorm';
import type { StoredEvent } from './stored-event.ts';
import { type VisitRow, visitsOf } from './visits.ts';

const SECONDS = `ARRAY[${STAY_SECONDS.join(',')}]::smallint[]`;
const DEPTHS = `ARRAY[${STAY_DEPTHS.join(',')}]::smallint[]`;

/**
 * Stores events and counts them into the rollups in one statement. An event known by its id and time is passed
 * over and not counted again; one that names a campaign of another site is dropped. Rollup rows are touched in
 * one order, so statements that run side by side wait for each other and never deadlock.
 *
 * @returns How many events were new.
 */
export async function storeEvents(manager: EntityManager, events: readonly StoredEvent[]): Promise<number> {
  const column = (pick: (event: StoredEvent) => Cell) => arrayLiteral(events.map(pick));
  const visits = visitsOf(events);
  const ofVisits = (pick: (visit: VisitRow) => Cell) => arrayLiteral(visits.map(pick));
  const [row]: [{ stored: string }] = await manager.query(
    `WITH fresh AS (
       INSERT INTO event (id, at, site_id, kind, visitor, session, page, device, campaign_id, version, closed_by,
                          variant, seconds, depth, seconds_before, depth_before)
       SELECT sent.* FROM unnest($1::uuid[], $2::timestamptz[], $3::uuid[], $4::text[], $5::uuid[], $6::uuid[],
                                 $7::text[], $8::text[], $9::uuid[], $10::integer[], $11::text[],
                                 $12::text[], $13::smallint[], $14::smallint[], $15::smallint[], $16::smallint[])
         AS sent (id, at, site_id, kind, visitor, session, page, device, campaign_id, version, closed_by, variant,
                  seconds, depth, seconds_before, depth_before)
         LEFT JOIN campaign ON campaign.id = sent.campaign_id AND campaign.site_id = sent.site_id
        WHERE sent.campaign_id IS NULL OR campaign.id IS NOT NULL
       ON CONFLICT DO NOTHING
       RETURNING *),
     first_seen AS (
       INSERT INTO campaign_visitor (campaign_id, kind, visitor, first_at)
       SELECT campaign_id, kind, visitor, min(at) FROM fresh WHERE campaign_id IS NOT NULL
        GROUP BY campaign_id, kind, visitor ORDER BY campaign_id, kind, visitor
       ON CONFLICT DO NOTHING
       RETURNING campaign_id, kind, first_at),
     counted AS (
       INSERT INTO campaign_hour (campaign_id, hour, kind, events, first_visitors)
       SELECT campaign_id, hour, kind, sum(events), sum(visitors) FROM (
         SELECT campaign_id, date_trunc('hour', at, 'UTC') AS hour, kind, 1 AS events, 0 AS visitors
           FROM fresh WHERE campaign_id IS NOT NULL
         UNION ALL
         SELECT campaign_id, date_trunc('hour', first_at, 'UTC'), kind, 0, 1 FROM first_seen) AS part
        GROUP BY campaign_id, hour, kind ORDER BY campaign_id, hour, kind
       ON CONFLICT (campaign_id, hour, kind) DO UPDATE
         SET events = campaign_hour.events + excluded.events,
             first_visitors = campaign_hour.first_visitors + excluded.first_visitors),
     seen AS (
       INSERT INTO page_day (site_id, path, day, views)
       SELECT site_id, split_part(page, '?', 1) AS path, (at AT TIME ZONE 'UTC')::date AS day, count(*)
         FROM fresh WHERE kind = 'pageview' GROUP BY site_id, path, day ORDER BY site_id, day, path
       ON CONFLICT (site_id, day, path) DO UPDATE SET views = page_day.views + excluded.views),
     visited AS (
       INSERT INTO visit AS old (site_id, session, visitor, started_at, landing, number, referrer, country, languages,
                                 browser, system, signed_in, basket_items, basket_total, attributes, views)
       SELECT site_id, session, visitor, started_at, landing, number, referrer, country, languages, browser, system,
              signed_in, items, total, attributes, coalesce(viewed.views, 0)
         FROM unnest($17::uuid[], $18::uuid[], $19::uuid[], $20::timestamptz[], $21::text[], $22::integer[],
                     $23::text[], $24::text[], $25::text[], $26::text[], $27::text[], $28::boolean[],
                     $29::double precision[], $30::double precision[], $31::jsonb[])
           AS sent (site_id, session, visitor, started_at, landing, number, referrer, country, languages, browser,
                    system, signed_in, items, total, attributes)
         LEFT JOIN (SELECT site_id, session, count(*)::integer AS views FROM fresh WHERE kind = 'pageview'
                     GROUP BY site_id, session) AS viewed USING (site_id, session)
        ORDER BY site_id, session
       ON CONFLICT (site_id, session) DO UPDATE
         SET views = old.views + excluded.views,
             started_at = least(old.started_at, excluded.started_at),
             landing = coalesce(excluded.landing, old.landing),
             number = coalesce(excluded.number, old.number),
             referrer = coalesce(excluded.referrer, old.referrer),
             country = coalesce(excluded.country, old.country),
             languages = coalesce(excluded.languages, old.languages),
             browser = coalesce(excluded.browser, old.browser),
             system = coalesce(excluded.system, old.system),
             signed_in = coalesce(excluded.signed_in, old.signed_in),
             basket_items = coalesce(excluded.basket_items, old.basket_items),
             basket_total = coalesce(excluded.basket_total, old.basket_total),
             attributes = coalesce(excluded.attributes, old.attributes)),
     stayed AS (
       INSERT INTO stay_day (site_id, path, day, device, of, bucket, visits)
       SELECT site_id, split_part(page, '?', 1) AS path, (at AT TIME ZONE 'UTC')::date AS day, device, of,
              CASE of WHEN 'seconds' THEN width_bucket(value, ${SECONDS}) ELSE width_bucket(value, ${DEPTHS}) END - 1
                AS bucket, sum(change)
         FROM fresh, LATERAL (VALUES ('seconds', seconds, 1), ('depth', depth, 1),
                                     ('seconds', seconds_before, -1), ('depth', depth_before, -1))
                       AS part (of, value, change)
        WHERE kind = 'left' AND value IS NOT NULL
        GROUP BY site_id, path, day, device, of, bucket ORDER BY site_id, day, path, device, of, bucket
       ON CONFLICT (site_id, day, path, device, of, bucket) DO UPDATE
         SET visits = stay_day.visits + excluded.visits)
     SELECT count(*) AS stored FROM fresh`,
    [
      column((e) => e.id),
      column((e) => e.at.toISOString()),
      column((e) => e.siteId),
      column((e) => e.kind),
      column((e) => e.visitor),
      column((e) => e.session),
      column((e) => e.page),
      column((e) => e.device),
      column((e) => e.campaign),
      column((e) => e.version),
      column((e) => e.closedBy),
      column((e) => e.variant),
      column((e) => e.stay?.[0] ?? null),
      column((e) => e.stay?.[1] ?? null),
      column((e) => e.stayed?.[0] ?? null),
      column((e) => e.stayed?.[1] ?? null),
      ofVisits((v) => v.siteId),
      ofVisits((v) => v.session),
      ofVisits((v) => v.visitor),
      ofVisits((v) => v.at.toISOString()),
      ofVisits((v) => v.landing),
      ofVisits((v) => v.begun?.number ?? null),
      ofVisits((v) => v.begun?.referrer ?? null),
      ofVisits((v) => v.begun?.country ?? null),
      ofVisits((v) => v.begun?.languages ?? null),
      ofVisits((v) => v.begun?.browser ?? null),
      ofVisits((v) => v.begun?.system ?? null),
      ofVisits((v) => v.told?.signedIn ?? null),
      ofVisits((v) => v.told?.items ?? null),
      ofVisits((v) => v.told?.total ?? null),
      ofVisits((v) => v.told?.attributes ?? null),
    ],
  );
  return Number(row.stored);
}

type Cell = string | number | boolean | null;
const PLAIN = /^[\w.:/-]+$/;

/**
 * A PostgreSQL array as text. The driver escapes every element of an array, which costs more than all else here;
 * ids, times and words of ours need none.
 */
function arrayLiteral(values: readonly Cell[]): string {
  const element = (value: Cell) => {
    if (value === null) return 'NULL';
    const text = String(value);
    return PLAIN.test(text) && text !== 'NULL' ? text : `"${text.replace(/["\\]/g, '\\$&')}"`;
  };
  return `{${values.map(element).join(',')}}`;
}

/** Makes the day partitions of `event` from `fromDay` (days from today, may be negative) to `toDay`. */
export async function ensurePartitions(
  manager: EntityManager,
  now: Date,
  fromDay: number,
  toDay: number,
): Promise<void> {
  // Two processes may start at once; `IF NOT EXISTS` alone still races on the catalogue.
  await manager.query(`SELECT pg_advisory_xact_lock(hashtext('velarium.partitions'))`);
  for (let day = fromDay; day <= toDay; day++) {
    const start = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate() + day));
    const end = new Date(start.getTime() + 86_400_000);
    const [from, to] = [start.toISOString().slice(0, 10), end.toISOString().slice(0, 10)];
    // Names and bounds come from the clock alone, never from outside.
    await manager.query(
      `CREATE TABLE IF NOT EXISTS event_${from.replaceAll('-', '')} PARTITION OF event
         FOR VALUES FROM ('${from} 00:00+00') TO ('${to} 00:00+00')`,
    );
  }
}

/** Removes visits that began before `before`. */
export async function forgetVisits(manager: EntityManager, before: Date): Promise<void> {
  await manager.query('DELETE FROM visit WHERE started_at < $1', [before]);
}
