/** What kind of fault of the database an error is, if any. */
export type DatabaseFault =
  /** It cannot be reached, or has just gone. */
  | 'away'
  /** Too much waits for it, or for one row of it. */
  | 'busy'
  /** It takes no such value. */
  | 'value';

const AWAY = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'EAI_AGAIN', '3D000']);
/** Lock not available, statement cancelled for its time, deadlock, serialisation, too many connections. */
const BUSY = new Set(['55P03', '57014', '40P01', '40001', '53300', '25P03']);
/** node-postgres has no codes for these; nor has the mapper, for a connection that was lost within a transaction. */
const AWAY_WORDS =
  /^(Connection terminated|Client has encountered a connection error|Client was closed|Query runner already released|Database connection provided by a query runner was already released)/;
const BUSY_WORDS = /^timeout exceeded when trying to connect/;

/**
 * Tells faults of the database from other errors, also inside the wrappers of the object mapper. Codes are those of
 * PostgreSQL's appendix A, and of the operating system.
 */
export function databaseFault(error: unknown): DatabaseFault | undefined {
  if (!(error instanceof Error)) return undefined;
  // Several addresses of one host, each refused.
  if (error instanceof AggregateError) return databaseFault(error.errors[0]);
  const { code } = error as { code?: unknown };
  if (typeof code === 'string') {
    if (BUSY.has(code)) return 'busy';
    if (AWAY.has(code) || code.startsWith('08') || code.startsWith('57P')) return 'away';
    if (/^22[0-9A-Z]{3}$/.test(code)) return 'value';
  }
  if (AWAY_WORDS.test(error.message)) return 'away';
  return BUSY_WORDS.test(error.message) ? 'busy' : undefined;
}

/** Whether a row was refused since there is one of its key; "unique_violation" in PostgreSQL's appendix A. */
export const isKnownKey = (error: unknown): boolean =>
  error instanceof Error && (error as { code?: unknown }).code === '23505';
