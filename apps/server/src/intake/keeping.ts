import type { DataSource, EntityManager } from 'typeorm';

const DAY_MS = 86_400_000;
/** Removing many rows takes longer than a visitor is waited for. */
const BE_PATIENT = `SET LOCAL statement_timeout = '10min'`;

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
    const end = new Date(start.getTime() + DAY_MS);
    const [from, to] = [start.toISOString().slice(0, 10), end.toISOString().slice(0, 10)];
    // Names and bounds come from the clock alone, never from outside.
    await manager.query(
      `CREATE TABLE IF NOT EXISTS event_${from.replaceAll('-', '')} PARTITION OF event
         FOR VALUES FROM ('${from} 00:00+00') TO ('${to} 00:00+00')`,
    );
  }
}

/** Removes visits that began before `before`, and what is known of how long their pages were looked at. */
export async function forgetVisits(manager: EntityManager, before: Date): Promise<void> {
  await manager.query(BE_PATIENT);
  await manager.query('DELETE FROM visit WHERE started_at < $1', [before]);
  await manager.query('DELETE FROM page_stay WHERE day < $1::date', [before]);
}

/** Removes what is known of the days of pages before `before`: no curve and no list looks further back. */
export async function forgetPageDays(manager: EntityManager, before: Date): Promise<void> {
  await manager.query(BE_PATIENT);
  await manager.query('DELETE FROM page_day WHERE day < $1::date', [before]);
  await manager.query('DELETE FROM stay_day WHERE day < $1::date', [before]);
}

/**
 * Removes what is known of single visitors' days with campaigns before `before`. What was counted of them stays; whoever comes
 * again later counts as somebody new.
 */
export async function forgetVisitorDays(manager: EntityManager, before: Date): Promise<void> {
  await manager.query(BE_PATIENT);
  await manager.query('DELETE FROM visitor_day WHERE day < $1::date', [before]);
  await manager.query('DELETE FROM touched_day WHERE day < $1::date', [before]);
}

/**
 * Removes the events of sites that keep them for so many days, a partition at a time, and the partition when nothing is left in
 * it. What has not been counted stays.
 */
export async function forgetEvents(db: DataSource, now: Date): Promise<void> {
  const partitions: { name: string; day: string }[] = await db.query(
    `SELECT child.relname AS name, to_char(to_date(right(child.relname, 8), 'YYYYMMDD'), 'YYYY-MM-DD') AS day
       FROM pg_inherits JOIN pg_class child ON child.oid = inhrelid, counted_until
      WHERE inhparent = 'event'::regclass AND child.relname ~ '^event_[0-9]{8}$'
        AND (to_date(right(child.relname, 8), 'YYYYMMDD') + 1)::timestamp AT TIME ZONE 'UTC' <= counted_until.since
        AND EXISTS (SELECT FROM site WHERE events_kept_days IS NOT NULL)
      ORDER BY day`,
  );
  for (const { name, day } of partitions)
    await db.transaction(async (manager) => {
      await manager.query(BE_PATIENT);
      // Whole days of the partition's own time lie behind.
      const sites: { id: string; isGone: boolean }[] = await manager.query(
        `SELECT id, coalesce(events_gone_until > $1::date, false) AS "isGone" FROM site
          WHERE events_kept_days IS NOT NULL
            AND ($1::date + 1 + events_kept_days)::timestamp AT TIME ZONE 'UTC' <= $2`,
        [day, now],
      );
      const due = sites.filter(({ isGone }) => !isGone).map(({ id }) => id);
      if (due.length === 0) return;
      // The name was read from the catalogue and is one of ours.
      const [{ hasOthers }]: [{ hasOthers: boolean }] = await manager.query(
        `SELECT EXISTS (SELECT FROM ${name} WHERE site_id <> ALL($1::uuid[])) AS "hasOthers"`,
        [sites.map(({ id }) => id)],
      );
      if (hasOthers) await manager.query(`DELETE FROM ${name} WHERE site_id = ANY($1::uuid[])`, [due]);
      else await manager.query(`DROP TABLE ${name}`);
      await manager.query(
        'UPDATE site SET events_gone_until = greatest(events_gone_until, $2::date + 1) WHERE id = ANY($1::uuid[])',
        [due, day],
      );
    });
  // Of what came late its id is known for as long as any event of its day is.
  await db.query(
    `DELETE FROM late_event WHERE at < (
       SELECT min(to_date(right(child.relname, 8), 'YYYYMMDD'))::timestamp AT TIME ZONE 'UTC'
         FROM pg_inherits JOIN pg_class child ON child.oid = inhrelid
        WHERE inhparent = 'event'::regclass AND child.relname ~ '^event_[0-9]{8}$')`,
  );
}

/** Room for events of these instants, where their day is gone already. */
export async function makeRoom(manager: EntityManager, instants: readonly Date[]): Promise<void> {
  const days = new Set(instants.map((at) => Math.floor(at.getTime() / DAY_MS)));
  for (const day of days) await ensurePartitions(manager, new Date(day * DAY_MS), 0, 0);
}
