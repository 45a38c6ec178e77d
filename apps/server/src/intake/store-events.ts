import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { EntityManager } from 'typeorm';
import { queryPrepared } from '../infra/query-prepared.ts';
import { type Columns, sentAs } from './columns.ts';
import type { StoredEvent } from './stored-event.ts';
import { type VisitRow, visitsOf } from './visits.ts';

const SECONDS = `ARRAY[${STAY_SECONDS.join(',')}]::smallint[]`;
/** Younger than what `results/count-events.ts` looks for unasked. */
const USUAL_AGE_MS = 4 * 86_400_000;
const DEPTHS = `ARRAY[${STAY_DEPTHS.join(',')}]::smallint[]`;

/** The columns of `event` that are sent; the database itself adds which transaction brought it. */
const EVENT_COLUMNS: Columns<StoredEvent> = {
  id: ['uuid', (e) => e.id],
  at: ['timestamptz', (e) => e.at],
  site_id: ['uuid', (e) => e.siteId],
  kind: ['text', (e) => e.kind],
  visitor: ['uuid', (e) => e.visitor],
  session: ['uuid', (e) => e.session],
  page: ['text', (e) => e.page],
  device: ['text', (e) => e.device],
  campaign_id: ['uuid', (e) => e.campaign],
  version: ['integer', (e) => e.version],
  closed_by: ['text', (e) => e.closedBy],
  variant: ['text', (e) => e.variant],
  seconds: ['smallint', (e) => e.stay?.[0] ?? null],
  depth: ['smallint', (e) => e.stay?.[1] ?? null],
  view: ['uuid', (e) => e.view],
  cause: ['text', (e) => e.cause],
  goal: ['uuid', (e) => e.goal],
  worth: ['numeric', (e) => e.worth],
  part: ['text', (e) => e.part],
  // Answers that were held back before it was told have none.
  language: ['text', (e) => e.language ?? null],
  // A path alone is read from the page.
  counted_path: ['text', (e) => (/[?#]/.test(e.path) ? e.path : null)],
};

const LATE_COLUMNS: Columns<StoredEvent> = {
  is_late: ['boolean', (e) => e.isLate],
  own_at: ['timestamptz', (e) => e.ownAt],
};

const PAGE_COLUMNS: Columns<StoredEvent> = {
  site_id: ['uuid', (e) => e.siteId],
  page: ['text', (e) => e.page],
  path: ['text', (e) => e.path],
};

const VISIT_COLUMNS: Columns<VisitRow> = {
  site_id: ['uuid', (v) => v.siteId],
  session: ['uuid', (v) => v.session],
  visitor: ['uuid', (v) => v.visitor],
  started_at: ['timestamptz', (v) => v.at],
  landing: ['text', (v) => v.landing],
  number: ['integer', (v) => v.begun?.number ?? null],
  referrer: ['text', (v) => v.begun?.referrer ?? null],
  country: ['text', (v) => v.begun?.country ?? null],
  languages: ['text', (v) => v.begun?.languages ?? null],
  browser: ['text', (v) => v.begun?.browser ?? null],
  system: ['text', (v) => v.begun?.system ?? null],
  signed_in: ['boolean', (v) => v.told?.signedIn ?? null],
  items: ['double precision', (v) => v.told?.items ?? null],
  total: ['double precision', (v) => v.told?.total ?? null],
  attributes: ['jsonb', (v) => v.told?.attributes ?? null],
};

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
 * @param areNew Whether none is thought to be known; where one is, nothing is stored and it throws (`isKnownKey`).
 * @returns How many events were new.
 */
export async function storeEvents(
  manager: EntityManager,
  events: readonly StoredEvent[],
  { areNew = false }: { readonly areNew?: boolean } = {},
): Promise<number> {
  const hasLate = events.some(({ isLate }) => isLate);
  const pages = [...new Map(events.map((event) => [`${event.siteId} ${event.page}`, event])).values()];
  const columns = Object.keys(EVENT_COLUMNS);
  const params: Buffer[] = [];
  const statement = `WITH sent AS (SELECT * FROM ${sentAs(params, 'sent', events, { ...EVENT_COLUMNS, ...LATE_COLUMNS })}),
     ${hasLate ? LATE : ''}
     fresh AS (
       INSERT INTO event (${columns.join(', ')})
       SELECT ${columns.map((column) => `sent.${column}`).join(', ')}
         FROM sent
         LEFT JOIN campaign ON campaign.id = sent.campaign_id AND campaign.site_id = sent.site_id
        WHERE (sent.campaign_id IS NULL OR campaign.id IS NOT NULL)
          AND CASE WHEN is_late THEN ${hasLate ? 'EXISTS (SELECT FROM late WHERE late.id = sent.id AND late.at = sent.at)' : 'false'}
                   ELSE NOT EXISTS (SELECT FROM late_event known WHERE known.id = sent.id) END
       ${areNew ? '' : 'ON CONFLICT DO NOTHING'}
       RETURNING *),
     -- One row a page, so that joining it doubles nothing.
     counted_as AS (SELECT * FROM ${sentAs(params, 'page_of', pages, PAGE_COLUMNS)}),
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
         FROM ${sentAs(params, 'sent', visitsOf(events), VISIT_COLUMNS)}
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
     SELECT count(*) AS stored FROM fresh`;
  // What looks for an event of long ago is planned for its very days.
  const [row] = hasLate
    ? await manager.query<{ stored: string }[]>(statement, params)
    : await queryPrepared<{ stored: string }>(
        manager,
        areNew ? 'store-new-events' : 'store-events',
        statement,
        params,
      );
  await noteOld(manager, events);
  return Number(row?.stored);
}

/** Events are looked for by when they happened: who stores older ones than usually come says so to who counts them. */
async function noteOld(manager: EntityManager, events: readonly StoredEvent[]): Promise<void> {
  const oldestMs = events.reduce((least, { at }) => Math.min(least, at.getTime()), Number.POSITIVE_INFINITY);
  if (oldestMs < Date.now() - USUAL_AGE_MS)
    await manager.query('UPDATE counted_until SET since = least(since, $1)', [
      new Date(oldestMs).toISOString(),
    ]);
}
