import type { DataSource, EntityManager } from 'typeorm';
import { countGoals, sitesWithPageGoals, type ToldOfEvents } from './count-goals.ts';
import { COUNT } from './count-statement.ts';

/** Events counted by one statement, unless one transaction brought more. */
const AT_ONCE = 40_000;
/** Events of longer ago come from what was kept elsewhere, and whoever stores them says so; see `storeEvents`. */
const USUAL_AGE = '5 days';
/** How long a reader waits until what was stored before they asked is counted. */
const PATIENCE_MS = 1000;
const PAUSE_MS = 10;

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

/**
 * A session names its transaction by the lower half of its number: it is the one nearest to what begins next, on either side.
 * Those that began while one looked lie beyond it.
 */
export const nearestTransaction = (lowerHalf: number, next: number): number =>
  next + ((lowerHalf - (next % 2 ** 32)) | 0);

/**
 * All transactions of this database before this one have ended, so that none of their events can come any more; whether that
 * is all there were. What is under way in other databases of the same cluster is not waited for.
 */
async function horizonOf(manager: EntityManager): Promise<{ readonly tx: number; readonly isAll: boolean }> {
  // First, so that whoever begins between the two lies behind it.
  const next = await nextTransaction(manager);
  const running: { xid: string }[] = await manager.query(
    `SELECT backend_xid::text AS xid FROM pg_stat_activity
      WHERE datname = current_database() AND backend_xid IS NOT NULL AND pid <> pg_backend_pid()`,
  );
  const tx = Math.min(next, ...running.map(({ xid }) => nearestTransaction(Number(xid), next)));
  return { tx, isAll: tx === next };
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
  // Before the horizon: what moved it was stored by a transaction that has ended, or is under way and seen to be.
  const [{ mark }]: [{ mark: string }] = await manager.query('SELECT last_value AS mark FROM event_mark');
  const { tx: horizon, isAll } = await horizonOf(manager);
  const withPages = await sitesWithPageGoals(manager);
  // All that is to be known of them beforehand at once: to find them is half of what counting them takes.
  const [{ last, found, ...told }]: [{ last: string | null; found: number } & ToldOfEvents] =
    await manager.query(
      `WITH next_ones AS (
         SELECT tx, site_id, kind,
                CASE WHEN kind = 'pageview' AND site_id = ANY($4) THEN site_id || page END AS page_of_site
           FROM event WHERE tx >= $1 AND tx < $2 AND at >= $3
          ORDER BY tx FETCH FIRST ${AT_ONCE} ROWS WITH TIES)
       SELECT max(tx) AS last, count(*)::integer AS found, array_agg(DISTINCT site_id) AS sites,
              array_agg(DISTINCT kind) AS kinds,
              ARRAY(SELECT DISTINCT page_of_site FROM next_ones WHERE page_of_site IS NOT NULL) AS pages
         FROM next_ones`,
      [from, horizon, since, withPages],
    );
  const isMore = found >= AT_ONCE;
  const upTo = isMore ? Number(last) + 1 : horizon;
  if (found > 0) {
    await manager.query(COUNT, [from, upTo, since]);
    await countGoals(manager, { from, upTo, since }, told);
  }
  await manager.query('UPDATE counted_until SET tx = $1, mark = CASE WHEN $2 THEN $3 ELSE mark END', [
    upTo,
    isAll && !isMore,
    mark,
  ]);
  // Once all that happened long ago is counted, only what is usual is looked for again.
  if (isOld)
    await manager.query(
      `UPDATE counted_until SET since = now() - interval '${USUAL_AGE}'
        WHERE NOT EXISTS (SELECT FROM event WHERE event.tx >= $1 AND at < now() - interval '${USUAL_AGE}' AND at >= $2)`,
      [upTo, since],
    );
  return { tx: upTo, isMore };
}

interface Until {
  readonly tx: string;
  readonly since: string;
}

/** How far the counting has come, unless nothing was stored since. */
async function untilIfMoved(db: DataSource): Promise<Until | undefined> {
  const [until]: (Until & { isMoved: boolean })[] = await db.query(
    'SELECT tx, since::text, last_value > mark AS "isMoved" FROM counted_until, event_mark',
  );
  return until?.isMoved ? until : undefined;
}

async function countAll(db: DataSource, patienceMs: number): Promise<void> {
  const next = await nextTransaction(db.manager);
  const untilMs = Date.now() + patienceMs;
  for (;;) {
    const step = await db.transaction(countSome);
    if (step && !step.isMore && step.tx >= next) return;
    if (Date.now() >= untilMs) return;
    if (!step?.isMore) await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}

/**
 * Counts every event that was stored before it was called. Where another process counts, or somebody's transaction holds it
 * up, it is waited for a moment and then left to the worker.
 */
export async function countEvents(db: DataSource, patienceMs = PATIENCE_MS): Promise<void> {
  const until = await untilIfMoved(db);
  if (!until) return;
  // A mark that another transaction kept from being set says nothing. Asked with the values themselves: the database then looks at
  // the few days that can hold any.
  const [{ isNew }]: [{ isNew: boolean }] = await db.query(
    'SELECT EXISTS (SELECT FROM event WHERE tx >= $1 AND at >= $2) AS "isNew"',
    [until.tx, until.since],
  );
  if (isNew) await countAll(db, patienceMs);
}

/** How often a worker looks for events to count. */
const COUNT_EVERY_MS = 1000;

/** Counts what comes, until it is stopped. */
export function createCounting(db: DataSource, report: (error: unknown) => void): { stop(): Promise<void> } {
  let isStopping = false;
  let timer: NodeJS.Timeout | undefined;
  let counting: Promise<void> = Promise.resolve();
  /** Without looking first whether there are any: nearly always there are, and to look for them is to read them. */
  const count = async () => {
    if (await untilIfMoved(db)) await countAll(db, PATIENCE_MS);
  };
  const go = () => {
    counting = count().catch(report);
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
