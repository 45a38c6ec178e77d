import type { DataSource, EntityManager } from 'typeorm';
import { countGoals } from './count-goals.ts';

/** Events counted by one statement, unless one transaction brought more. */
const AT_ONCE = 40_000;
/** Events of longer ago come from what was kept elsewhere, and whoever stores them says so; see `storeEvents`. */
const USUAL_AGE = '5 days';
/** How long a reader waits until what was stored before they asked is counted. */
const PATIENCE_MS = 1000;
const PAUSE_MS = 10;
/** A message closed sooner was not read: seconds. */
const SOON_SECONDS = 2;

/**
 * Counts the events of transactions from $1 to before $2, none older than $3, into days of their sites' own. Rows are touched
 * in one order. Whoever converted has met the campaign, also when the news of the showing never came.
 *
 * For who was met on a new day the chain of their days is read as it was and as it is: what changed between neighbours is
 * what changes in `reach_day`, also when news come late and split a link.
 */
const COUNT = `
  WITH fresh AS (
    SELECT campaign_id, e.kind, visitor, coalesce(variant, '') AS variant, at, at AT TIME ZONE site.time_zone AS local, seconds
      FROM event e JOIN campaign ON campaign.id = e.campaign_id JOIN site ON site.id = e.site_id
     WHERE e.tx >= $1 AND e.tx < $2 AND e.at >= $3 AND e.campaign_id IS NOT NULL),
  counted AS (
    SELECT campaign_id, kind, visitor, variant, at, local, 1 AS events FROM fresh
    UNION ALL SELECT campaign_id, 'shown', visitor, variant, at, local, 0 FROM fresh WHERE kind = 'converted'
    UNION ALL SELECT campaign_id, 'closedSoon', visitor, variant, at, local, 1 FROM fresh
               WHERE kind = 'closed' AND seconds < ${SOON_SECONDS}),
  days AS (
    INSERT INTO visitor_day AS old (campaign_id, kind, visitor, day, first_at, events, variant)
    SELECT campaign_id, kind, visitor, local::date AS day, min(at), sum(events), min(variant) FROM counted
     GROUP BY campaign_id, kind, visitor, local::date ORDER BY campaign_id, kind, visitor, day
    ON CONFLICT (campaign_id, kind, visitor, day) DO UPDATE
      SET events = old.events + excluded.events, first_at = least(old.first_at, excluded.first_at)
    RETURNING campaign_id, kind, visitor, day, xmax = 0 AS is_new),
  chain AS (
    SELECT campaign_id, kind, visitor, day, true AS is_new FROM days WHERE is_new
    UNION ALL
    -- As it was: what this very statement writes is not seen here.
    SELECT campaign_id, kind, visitor, old.day, false
      FROM (SELECT DISTINCT campaign_id, kind, visitor FROM days WHERE is_new) AS met
      JOIN visitor_day old USING (campaign_id, kind, visitor)),
  links AS (
    SELECT campaign_id, kind, day, coalesce(lag(day) OVER one, '-infinity') AS before, 1 AS change
      FROM chain WINDOW one AS (PARTITION BY campaign_id, kind, visitor ORDER BY day)
    UNION ALL
    SELECT campaign_id, kind, day, coalesce(lag(day) OVER one, '-infinity'), -1
      FROM chain WHERE NOT is_new WINDOW one AS (PARTITION BY campaign_id, kind, visitor ORDER BY day)),
  reached AS (
    INSERT INTO reach_day AS old (campaign_id, kind, day, before, visitors)
    SELECT campaign_id, kind, day, before, sum(change) FROM links
     GROUP BY campaign_id, kind, day, before HAVING sum(change) <> 0 ORDER BY campaign_id, kind, day, before
    ON CONFLICT (campaign_id, kind, day, before) DO UPDATE SET visitors = old.visitors + excluded.visitors),
  by_day AS (
    INSERT INTO campaign_day AS old (campaign_id, day, kind, events)
    SELECT campaign_id, local::date AS day, kind, sum(events) FROM counted
     GROUP BY campaign_id, local::date, kind ORDER BY campaign_id, day, kind
    ON CONFLICT (campaign_id, day, kind) DO UPDATE SET events = old.events + excluded.events)
  INSERT INTO campaign_hour AS old (campaign_id, day, hour, kind, events)
  SELECT campaign_id, local::date AS day, extract(hour FROM local) AS hour, kind, sum(events) FROM counted
   GROUP BY campaign_id, local::date, extract(hour FROM local), kind ORDER BY campaign_id, day, hour, kind
  ON CONFLICT (campaign_id, day, hour, kind) DO UPDATE SET events = old.events + excluded.events`;

/** How far the counting has come. */
interface Step {
  readonly tx: number;
  readonly isMore: boolean;
}

/** Of the transaction that would begin next. Such numbers stay far below what a number holds exactly. */
async function nextTransaction(manager: EntityManager): Promise<number> {
  const [{ next }]: [{ next: string }] = await manager.query(
    'SELECT pg_snapshot_xmax(pg_current_snapshot())::text AS next',
  );
  return Number(next);
}

/** A session names its transaction by the lower half of its number. */
const HALF = 2 ** 32;

/**
 * All transactions of this database before this one have ended, so that none of their events can come any more. What is
 * under way in other databases of the same cluster is not waited for.
 */
async function horizonOf(manager: EntityManager): Promise<number> {
  // First, so that whoever begins between the two lies behind it.
  const next = await nextTransaction(manager);
  const running: { xid: string }[] = await manager.query(
    `SELECT backend_xid::text AS xid FROM pg_stat_activity
      WHERE datname = current_database() AND backend_xid IS NOT NULL AND pid <> pg_backend_pid()`,
  );
  const upper = Math.floor(next / HALF) * HALF;
  return running
    .map(({ xid }) => upper + Number(xid))
    .reduce((least, tx) => Math.min(least, tx > next ? tx - HALF : tx), next);
}

/** Counts a piece; `null` when another process is at it. */
async function countSome(manager: EntityManager): Promise<Step | null> {
  await manager.query(`SET LOCAL statement_timeout = '10min'`);
  const [until]: { tx: string; since: string; isOld: boolean }[] = await manager.query(
    `SELECT tx, since::text, since < now() - interval '${USUAL_AGE}' AS "isOld" FROM counted_until
        FOR UPDATE SKIP LOCKED`,
  );
  if (!until) return null;
  const { tx: from, since, isOld } = until;
  const horizon = await horizonOf(manager);
  const [{ last, found }]: [{ last: string | null; found: string }] = await manager.query(
    `SELECT max(tx) AS last, count(*) AS found
       FROM (SELECT tx FROM event WHERE tx >= $1 AND tx < $2 AND at >= $3 ORDER BY tx LIMIT ${AT_ONCE}) AS next_ones`,
    [from, horizon, since],
  );
  const isMore = Number(found) === AT_ONCE;
  const upTo = isMore && last !== null ? Number(last) + 1 : horizon;
  if (Number(found) > 0) {
    await manager.query(COUNT, [from, upTo, since]);
    await countGoals(manager, { from, upTo, since });
  }
  await manager.query('UPDATE counted_until SET tx = $1', [upTo]);
  // Once all that happened long ago is counted, only what is usual is looked for again.
  if (isOld)
    await manager.query(
      `UPDATE counted_until SET since = now() - interval '${USUAL_AGE}'
        WHERE NOT EXISTS (SELECT FROM event WHERE event.tx >= $1 AND at < now() - interval '${USUAL_AGE}' AND at >= $2)`,
      [upTo, since],
    );
  return { tx: upTo, isMore };
}

/**
 * Counts every event that was stored before it was called. Where another process counts, or somebody's transaction holds it
 * up, it is waited for a moment and then left to the worker.
 */
export async function countEvents(db: DataSource, patienceMs = PATIENCE_MS): Promise<void> {
  const [until]: { tx: string; since: string }[] = await db.query(
    'SELECT tx, since::text FROM counted_until',
  );
  // Asked with the values themselves: the database then looks at the few days that can hold any.
  const [{ isNew }]: [{ isNew: boolean }] = await db.query(
    'SELECT EXISTS (SELECT FROM event WHERE tx >= $1 AND at >= $2) AS "isNew"',
    [until?.tx, until?.since],
  );
  if (!isNew) return;
  const next = await nextTransaction(db.manager);
  const untilMs = Date.now() + patienceMs;
  for (;;) {
    const step = await db.transaction(countSome);
    if (step && !step.isMore && step.tx >= next) return;
    if (Date.now() >= untilMs) return;
    if (!step?.isMore) await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}

/** How often a worker looks for events to count. */
const COUNT_EVERY_MS = 1000;

/** Counts what comes, until it is stopped. */
export function createCounting(db: DataSource, report: (error: unknown) => void): { stop(): Promise<void> } {
  let isStopping = false;
  let timer: NodeJS.Timeout | undefined;
  let counting: Promise<void> = Promise.resolve();
  const go = () => {
    counting = countEvents(db).catch(report);
    void counting.then(() => {
      if (!isStopping) timer = setTimeout(go, COUNT_EVERY_MS);
    });
  };
  go();
  return {
    async stop() {
      isStopping = true;
      clearTimeout(timer);
      await counting;
    },
  };
}
