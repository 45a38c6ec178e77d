import { createHash, randomBytes } from 'node:crypto';
import type { AccessToken, KeyReads, MadeToken, MakeToken } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import { notFound } from '../infra/problem.ts';
import type { Principal } from './principal.ts';

const hashOf = (secret: string): Buffer => createHash('sha256').update(secret).digest();
/** What a key begins with, so that one that was published by mistake can be found. */
const PREFIX = 'velarium_';

/** What a key may be used for beside its principal. */
export interface TokenScope {
  readonly siteId: string | null;
  readonly reads: KeyReads;
}

interface Row extends Omit<AccessToken, 'createdAt' | 'lastUsedAt'> {
  readonly createdAt: Date;
  readonly lastUsedAt: Date | null;
}
const COLUMNS = `id, name, site_id AS "siteId", reads, created_by AS "createdBy", created_at AS "createdAt",
  last_used_at AS "lastUsedAt"`;
const plain = (row: Row): AccessToken => ({
  ...row,
  createdAt: row.createdAt.toISOString(),
  lastUsedAt: row.lastUsedAt?.toISOString() ?? null,
});

/** Keys by which other programs read: shown once, kept as hashes, taken back at any time. */
export function createTokens(db: DataSource) {
  return {
    async list(workspaceId: string): Promise<AccessToken[]> {
      const rows: Row[] = await db.query(
        `SELECT ${COLUMNS} FROM access_token WHERE workspace_id = $1 ORDER BY created_at`,
        [workspaceId],
      );
      return rows.map(plain);
    },
    async make(
      { workspaceId, name: by }: Principal,
      { name, siteId, reads = 'people' }: MakeToken,
    ): Promise<MadeToken> {
      const secret = PREFIX + randomBytes(24).toString('base64url');
      const [row]: Row[] = await db.query(
        `INSERT INTO access_token (workspace_id, site_id, name, hash, created_by, reads)
         SELECT $1, $2, $3, $4, $5, $6
          WHERE $2::uuid IS NULL OR EXISTS (SELECT FROM site WHERE id = $2 AND workspace_id = $1)
         RETURNING ${COLUMNS}`,
        [workspaceId, siteId, name, hashOf(secret), by, reads],
      );
      if (!row) throw notFound('site');
      return { secret, token: plain(row) };
    },
    async revoke(workspaceId: string, id: string): Promise<void> {
      const [, count]: [unknown, number] = await db.query(
        'DELETE FROM access_token WHERE id = $1 AND workspace_id = $2',
        [id, workspaceId],
      );
      if (count === 0) throw notFound('key');
    },
    /** Who asks with a key, and what for; notes that it was used. */
    async find(secret: string): Promise<{ principal: Principal; scope: TokenScope } | undefined> {
      if (!secret.startsWith(PREFIX)) return undefined;
      const [[row]]: [
        {
          id: string;
          workspaceId: string;
          workspace: string;
          asksSecond: boolean;
          siteId: string | null;
          reads: KeyReads;
          name: string;
        }[],
      ] = await db.query(
        `UPDATE access_token t SET last_used_at = now() FROM workspace w
            WHERE t.hash = $1 AND w.id = t.workspace_id
           RETURNING t.id, t.workspace_id AS "workspaceId", w.name AS workspace, w.asks_second AS "asksSecond", t.site_id AS "siteId", t.reads, t.name`,
        [hashOf(secret)],
      );
      if (!row) return undefined;
      const principal: Principal = {
        accountId: row.id,
        name: `the key “${row.name}”`,
        email: '',
        workspaceId: row.workspaceId,
        workspaceName: row.workspace,
        asksSecond: row.asksSecond,
        role: 'editor',
      };
      return { principal, scope: { siteId: row.siteId, reads: row.reads } };
    },
  };
}
