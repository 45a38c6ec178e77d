import type { DataSource } from 'typeorm';

/** What is only read from. */
export type Reads = Pick<DataSource, 'query'>;

export interface Reader {
  /** A database that holds everything committed before it was asked for. */
  current(): Promise<Reads>;
}

/** How long a standby may take to come up to the present; then the database itself is read. */
const PATIENCE_MS = 500;
const PAUSE_MS = 10;

/**
 * Reads what takes long (reports, recorded visits) from a streaming standby where there is one, so that it costs whoever
 * writes nothing. A standby that lies behind, has become the database itself, or is away is passed over.
 */
export function createReader(db: DataSource, standby?: DataSource): Reader {
  const isCaughtUp = async (other: DataSource): Promise<boolean> => {
    const [{ at }]: [{ at: string }] = await db.query('SELECT pg_current_wal_flush_lsn()::text AS at');
    const untilMs = Date.now() + PATIENCE_MS;
    for (;;) {
      const [{ isThere }]: [{ isThere: boolean | null }] = await other.query(
        'SELECT pg_is_in_recovery() AND pg_last_wal_replay_lsn() >= $1::pg_lsn AS "isThere"',
        [at],
      );
      if (isThere) return true;
      if (isThere === null || Date.now() >= untilMs) return false;
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
  };
  return {
    async current() {
      const isThere = standby !== undefined && (await isCaughtUp(standby).catch(() => false));
      return isThere ? standby : db;
    },
  };
}
