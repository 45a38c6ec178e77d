import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { EntityManager } from 'typeorm';
import type { StoredEvent } from './stored-event.ts';
import { type VisitRow, visitsOf } from './visits.ts';

const SECONDS = `ARRAY[${STAY_SECONDS.join(',')}]::smallint[]`;
/** Younger than what `results/count-events.ts` looks for unasked. */
const USUAL_AGE_MS = 4 * 86_400_000;
const DEPTHS = `ARRAY[${STAY_DEPTHS.join(',')}]::smallint[]`;

/**
 * Decision 0016: an event whose own time is not believed is known by its id alone, once and for all. Left out where none is: to
 * look through every day there is costs more to plan than all the rest.
 */
const LATE = `late AS (
       INSERT INTO late_event (id, at)
       SELECT id, at FROM sent
        WHERE is_late AND NOT EXISTS (SELECT FROM event WHERE event.id = sent.id AND event.at = sent.own_at)
        ORDER BY id
       ON CONFLICT DO NOTHING
       RETURNING id, at),`;

/**
 * Stores events in one statement; campaigns' numbers are counted behind it (decision 0026). An event known by its id is passed over and not
 * counted again, whenever it comes (decision 0016); one that names a campaign of another site is dropped. Rollup rows are touched in
 * one order, so statements that run side by side wait for each other and never deadlock.
 *
 * @returns How many events were new.
 */
export async function storeEvents(manager: EntityManager, events: readonly StoredEvent[]): Promise<number> {
  const column = (pick: (event: StoredEvent) => Cell) => arrayLiteral(events.map(pick));
  const visits = visitsOf(events);
  const ofVisits = (pick: (visit: VisitRow) => Cell) => arrayLiteral(visits.map(pick));
  const hasLate = events.some(({ isLate }) => isLate);
  const pages = [...new Map(events.map((event) => [`${event.siteId} ${event.page}`, event])).values()];
  const ofPages = (pick: (event: StoredEvent) => Cell) => arrayLiteral(pages.map(pick));
  const [row]: [{ stored: string }] = await manager.query(
    `WITH sent AS (
       SELECT * FROM unnest($1::uuid[], $2::timestamptz[], $3::uuid[], $4::text[], $5::uuid[], $6::uuid[],
                            $7::text[], $8::text[], $9::uuid[], $10::integer[], $11::text[],
                            $12::text[], $13::smallint[], $14::smallint[], $15::uuid[], $16::boolean[],
                            $17::timestamptz[], $36::text[], $37::uuid[], $38::numeric[], $39::text[], $40::text[], $41::text[])
         AS sent (id, at, site_id, kind, visitor, session, page, device, campaign_id, version, closed_by, variant,
                  seconds, depth, view, is_late, own_at, cause, goal, worth, part, language, counted_path)),
     -- One row a page, so that joining it doubles nothing.
     counted_as AS (SELECT * FROM unnest($33::uuid[], $34::text[], $35::text[]) AS page_of (site_id, page, path)),
     ${hasLate ? LATE : ''}
     fresh AS (
       INSERT INTO event (id, at, site_id, kind, visitor, session, page, device, campaign_id, version, closed_by,
                          variant, seconds, depth, view, cause, goal, worth, part, language, counted_path)
       SELECT sent.id, sent.at, sent.site_id, kind, visitor, session, page, device, campaign_id, version, closed_by,
              variant, seconds, depth, view, cause, goal, worth, part, language, counted_path
         FROM sent
         LEFT JOIN campaign ON campaign.id = sent.campaign_id AND campaign.site_id = sent.site_id
        WHERE (sent.campaign_id IS NULL OR campaign.id IS NOT NULL)
          AND CASE WHEN is_late THEN ${hasLate ? 'EXISTS (SELECT FROM late WHERE late.id = sent.id AND late.at = sent.at)' : 'false'}
                   ELSE NOT EXISTS (SELECT FROM late_event known WHERE known.id = sent.id) END
       ON CONFLICT DO NOTHING
       RETURNING *),
     seen AS (
       INSERT INTO page_day (site_id, path, day, views)
       SELECT site_id, path, (at AT TIME ZONE 'UTC')::date AS day, count(*)
         FROM fresh JOIN counted_as USING (site_id, page) WHERE kind = 'pageview' GROUP BY site_id, path, day ORDER BY site_id, day, path
       ON CONFLICT (site_id, day, path) DO UPDATE SET views = page_day.views + excluded.views),
     visited AS (
       INSERT INTO visit AS old (site_id, session, visitor, started_at, landing, number, referrer, country, languages,
                                 browser, system, signed_in, basket_items, basket_total, attributes, views)
       SELECT site_id, session, visitor, started_at, landing, number, referrer, country, languages, browser, system,
              signed_in, items, total, attributes, coalesce(viewed.views, 0)
         FROM unnest($18::uuid[], $19::uuid[], $20::uuid[], $21::timestamptz[], $22::text[], $23::integer[],
                     $24::text[], $25::text[], $26::text[], $27::text[], $28::text[], $29::boolean[],
                     $30::double precision[], $31::double precision[], $32::jsonb[])
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
     stays AS (
       -- People come back to hidden pages: the longest and deepest that was told of a page view is what it lasted.
       INSERT INTO page_stay AS old (site_id, view, path, device, day, seconds, depth)
       SELECT site_id, view, min(path), min(device), min((at AT TIME ZONE 'UTC')::date),
              max(seconds), max(depth)
         FROM fresh JOIN counted_as USING (site_id, page)
        WHERE kind = 'left' AND view IS NOT NULL AND seconds IS NOT NULL
        GROUP BY site_id, view ORDER BY site_id, view
       ON CONFLICT (site_id, view) DO UPDATE
         SET seconds = greatest(old.seconds, excluded.seconds), depth = greatest(old.depth, excluded.depth),
             seconds_before = old.seconds, depth_before = old.depth
       RETURNING *),
     stayed AS (
       INSERT INTO stay_day (site_id, path, day, device, of, bucket, visits)
       SELECT site_id, path, day, device, of,
              CASE of WHEN 'seconds' THEN width_bucket(value, ${SECONDS}) ELSE width_bucket(value, ${DEPTHS}) END - 1
                AS bucket, sum(change)
         FROM stays, LATERAL (VALUES ('seconds', seconds, 1), ('depth', depth, 1),
                                      ('seconds', seconds_before, -1), ('depth', depth_before, -1))
                        AS part (of, value, change)
        WHERE value IS NOT NULL
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
      column((e) => e.view),
      column((e) => e.isLate),
      column((e) => e.ownAt?.toISOString() ?? null),
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
      ofPages((e) => e.siteId),
      ofPages((e) => e.page),
      ofPages((e) => e.path),
      column((e) => e.cause),
      column((e) => e.goal),
      column((e) => e.worth),
      column((e) => e.part),
      // Answers that were held back before it was told have none.
      column((e) => e.language ?? null),
      // A path alone is read from the page.
      column((e) => (/[?#]/.test(e.path) ? e.path : null)),
    ],
  );
  await noteOld(manager, events);
  return Number(row.stored);
}

/** Events are looked for by when they happened: who stores older ones than usually come says so to who counts them. */
async function noteOld(manager: EntityManager, events: readonly StoredEvent[]): Promise<void> {
  const oldestMs = events.reduce((least, { at }) => Math.min(least, at.getTime()), Number.POSITIVE_INFINITY);
  if (oldestMs < Date.now() - USUAL_AGE_MS)
    await manager.query('UPDATE counted_until SET since = least(since, $1)', [
      new Date(oldestMs).toISOString(),
    ]);
}

type Cell = string | number | boolean | null;
const PLAIN = /^[\w.:/-]+$/;

/**
 * A PostgreSQL array as text, without the nulls it ends with: `unnest` fills them in beside longer ones. The driver escapes every
 * element of an array, which costs more than all else here; ids, times and words of ours need none.
 */
function arrayLiteral(values: readonly Cell[]): string {
  const element = (value: Cell) => {
    if (value === null) return 'NULL';
    const text = String(value);
    return PLAIN.test(text) && text !== 'NULL' ? text : `"${text.replace(/["\\]/g, '\\$&')}"`;
  };
  let { length } = values;
  while (length > 0 && values[length - 1] === null) length--;
  return `{${values.slice(0, length).map(element).join(',')}}`;
}
