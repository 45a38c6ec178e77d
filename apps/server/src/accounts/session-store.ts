import { createHash } from 'node:crypto';
import type { Session } from 'fastify';
import type { DataSource } from 'typeorm';
import { LoginSessionEntity } from './entities.ts';

const SESSION_MS = 14 * 24 * 3_600_000;

type Callback = (error?: unknown) => void;
type GetCallback = (error: unknown, session?: Session | null) => void;

/** Keeps sign-in sessions in the database, so any number of studios share them. */
export class SessionStore {
  constructor(private readonly db: DataSource) {}

  private readonly idOf = (sessionId: string) => createHash('sha256').update(sessionId).digest('hex');

  set(sessionId: string, session: Session, callback: Callback): void {
    const id = this.idOf(sessionId);
    const expires = session.cookie.expires ?? new Date(Date.now() + SESSION_MS);
    const kept = { data: session as object, expiresAt: new Date(expires) };
    const sessions = this.db.getRepository(LoginSessionEntity);
    // Whose it is becomes known of one that is there; one that has ended while it was asked with stays ended.
    const isNew = session.accountId === undefined;
    (isNew ? sessions.upsert({ id, ...kept }, ['id']) : sessions.update({ id }, kept)).then(
      () => callback(),
      callback,
    );
  }

  get(sessionId: string, callback: GetCallback): void {
    this.db
      .getRepository(LoginSessionEntity)
      .findOneBy({ id: this.idOf(sessionId) })
      .then(
        (row) => callback(null, row && row.expiresAt > new Date() ? (row.data as Session) : null),
        (error) => callback(error),
      );
  }

  destroy(sessionId: string, callback: Callback): void {
    this.db
      .getRepository(LoginSessionEntity)
      .delete({ id: this.idOf(sessionId) })
      .then(() => callback(), callback);
  }
}
