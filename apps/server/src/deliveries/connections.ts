import { randomBytes } from 'node:crypto';
import type { Connection, SaveConnection, ShownSecret, ToldEvent } from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { Seal } from '../infra/seal.ts';
import type { ConnectionSecrets } from './tell.ts';

export interface ConnectionRow {
  readonly id: string;
  readonly workspaceId: string;
  readonly siteId: string;
  readonly settings: SaveConnection;
  readonly sealed: string;
  readonly state: 'on' | 'resting';
  readonly words: string | null;
  readonly lastGoodAt: Date | null;
}
const COLUMNS = `id, workspace_id AS "workspaceId", site_id AS "siteId", settings, sealed, state, words,
  last_good_at AS "lastGoodAt"`;

export const laneOf = (connectionId: string): string => `connection ${connectionId}`;

/** A secret as Standard Webhooks write it: 24 bytes. */
const newSecret = () => `whsec_${randomBytes(24).toString('base64')}`;
const LIVE_SECRETS = 2;
const NO_SECRETS: ConnectionSecrets = { signing: [], headers: {} };

const writeAnew = () =>
  new ProblemError(
    422,
    'secret-anew',
    'Write the secret again',
    'The address is another now. Secret headers are kept for the place they were given for; write them again.',
    [{ path: 'headers', message: 'write the secret values again' }],
  );

/** Services that a site tells of what happens. Callers have made sure that the site is the workspace's. */
export function createConnections(db: DataSource, seal: Seal) {
  async function find(
    siteId: string,
    id: string,
    manager: EntityManager = db.manager,
  ): Promise<ConnectionRow> {
    const [row]: ConnectionRow[] = await manager.query(
      `SELECT ${COLUMNS} FROM connection WHERE id = $1 AND site_id = $2`,
      [id, siteId],
    );
    if (!row) throw notFound('connection');
    return row;
  }
  const secretsOf = ({ sealed }: Pick<ConnectionRow, 'sealed'>) => seal.open<ConnectionSecrets>(sealed);

  /**
   * Settings without what is secret in them, and the secrets. A header left without a value keeps the one it had, as long
   * as it goes to the same place: a secret that nobody can read must not be had by sending it elsewhere.
   *
   * @throws {ProblemError} 422 where a secret must be written anew.
   */
  function taken(
    saved: SaveConnection,
    row: Pick<ConnectionRow, 'settings' | 'sealed'> | null,
  ): { settings: SaveConnection; sealed: string } {
    const had = row ? secretsOf(row) : NO_SECRETS;
    if (saved.kind === 'events') return { settings: saved, sealed: seal.close(had) };
    const isMoved = row !== null && new URL(row.settings.address).origin !== new URL(saved.address).origin;
    if (isMoved && saved.headers.some(({ isSecret, value }) => isSecret && value === null)) throw writeAnew();
    const headers = Object.fromEntries(
      saved.headers
        .filter(({ isSecret }) => isSecret)
        .map(({ name, value }) => [name, value ?? had.headers[name] ?? '']),
    );
    const settings = {
      ...saved,
      headers: saved.headers.map((one) => (one.isSecret ? { ...one, value: null } : one)),
    };
    return { settings, sealed: seal.close({ ...had, headers }) };
  }

  /** Each row with its last day and what waits for it. */
  async function withHealth(rows: readonly ConnectionRow[]): Promise<Connection[]> {
    const ids = rows.map(({ id }) => id);
    const hours: { id: string; ago: number; good: number; bad: number }[] = await db.query(
      `SELECT connection_id AS id, floor(extract(epoch FROM now() - at) / 3600)::integer AS ago,
              count(*) FILTER (WHERE is_good)::integer AS good, count(*) FILTER (WHERE NOT is_good)::integer AS bad
         FROM delivery_try WHERE connection_id = ANY($1) AND at > now() - interval '24 hours' GROUP BY 1, 2`,
      [ids],
    );
    const waiting: { id: string; count: number }[] = await db.query(
      `SELECT connection_id AS id, count(*)::integer AS count FROM delivery
        WHERE connection_id = ANY($1) AND state IN ('waiting', 'retrying', 'held') GROUP BY 1`,
      [ids],
    );
    return rows.map((row) => ({
      id: row.id,
      settings: row.settings,
      state: row.state,
      words: row.words,
      lastGoodAt: row.lastGoodAt?.toISOString() ?? null,
      hours: Array.from({ length: 24 }, (_, at) => {
        const hour = hours.find(({ id, ago }) => id === row.id && ago === 23 - at);
        return { good: hour?.good ?? 0, bad: hour?.bad ?? 0 };
      }),
      waiting: waiting.find(({ id }) => id === row.id)?.count ?? 0,
      secrets: secretsOf(row).signing.length,
    }));
  }
  const one = async (siteId: string, id: string): Promise<Connection> =>
    (await withHealth([await find(siteId, id)]))[0] as Connection;

  const service = {
    find,
    secretsOf,
    taken,
    async list(siteId: string): Promise<Connection[]> {
      return withHealth(
        await db.query(`SELECT ${COLUMNS} FROM connection WHERE site_id = $1 ORDER BY created_at`, [siteId]),
      );
    },
    /** Makes a connection. One that signs gets a secret, shown this once. */
    async create(workspaceId: string, siteId: string, saved: SaveConnection): Promise<ShownSecret> {
      const secret = saved.kind === 'events' ? newSecret() : null;
      const fresh = {
        settings: saved,
        sealed: seal.close({ ...NO_SECRETS, signing: secret ? [secret] : [] }),
      };
      const { settings, sealed } = taken(saved, fresh);
      const [row]: { id: string }[] = await db.query(
        'INSERT INTO connection (workspace_id, site_id, settings, sealed) VALUES ($1, $2, $3, $4) RETURNING id',
        [workspaceId, siteId, JSON.stringify(settings), sealed],
      );
      return { secret, connection: await one(siteId, row?.id ?? '') };
    },
    async save(siteId: string, id: string, saved: SaveConnection): Promise<Connection> {
      const row = await find(siteId, id);
      if (row.settings.kind !== saved.kind) throw notFound('connection of this kind');
      const { settings, sealed } = taken(saved, row);
      await db.query('UPDATE connection SET settings = $2, sealed = $3 WHERE id = $1', [
        id,
        JSON.stringify(settings),
        sealed,
      ]);
      return one(siteId, id);
    },
    /** A new signing secret; the one before signs beside it until it is dropped. */
    async renewSecret(siteId: string, id: string): Promise<ShownSecret> {
      const row = await find(siteId, id);
      const secret = newSecret();
      const had = secretsOf(row);
      const signing = [secret, ...had.signing].slice(0, LIVE_SECRETS);
      await db.query('UPDATE connection SET sealed = $2 WHERE id = $1', [
        id,
        seal.close({ ...had, signing }),
      ]);
      return { secret, connection: await one(siteId, id) };
    },
    async dropOldSecret(siteId: string, id: string): Promise<Connection> {
      const row = await find(siteId, id);
      const had = secretsOf(row);
      await db.query('UPDATE connection SET sealed = $2 WHERE id = $1', [
        id,
        seal.close({ ...had, signing: had.signing.slice(0, 1) }),
      ]);
      return one(siteId, id);
    },
    async remove(siteId: string, id: string): Promise<void> {
      await find(siteId, id);
      await db.query('DELETE FROM connection WHERE id = $1', [id]);
    },
    /** Puts a connection to rest: what is for it is held until it is on again. */
    async rest(manager: EntityManager, id: string, words: string): Promise<void> {
      await manager.query(`UPDATE connection SET state = 'resting', words = $2 WHERE id = $1`, [id, words]);
      await manager.query(
        `UPDATE delivery SET state = 'held' WHERE connection_id = $1 AND state IN ('waiting', 'retrying')`,
        [id],
      );
    },
    async wake(manager: EntityManager, id: string): Promise<void> {
      await manager.query(
        `UPDATE connection SET state = 'on', words = NULL, failing_since = NULL WHERE id = $1`,
        [id],
      );
      await manager.query(
        `UPDATE delivery SET state = 'waiting', due_at = now(), begun_at = NULL, tries = 0
          WHERE connection_id = $1 AND state = 'held'`,
        [id],
      );
    },
    one,
    /** Those that want to be told of an event. */
    async wanting(
      manager: EntityManager,
      siteId: string,
      event: ToldEvent,
      campaignId: string | null,
    ): Promise<Pick<ConnectionRow, 'id' | 'settings' | 'state'>[]> {
      const rows: ConnectionRow[] = await manager.query(
        `SELECT ${COLUMNS} FROM connection WHERE site_id = $1 AND settings -> 'events' ? $2`,
        [siteId, event],
      );
      return rows.filter(
        ({ settings: { campaigns } }) =>
          campaigns === null || campaignId === null || campaigns.includes(campaignId),
      );
    },
  };
  return service;
}
export type ConnectionService = ReturnType<typeof createConnections>;
