import type { PersonState } from '@velarium/contract';
import { nextPersonState, type PersonDeed } from '@velarium/core';
import type { EntityManager } from 'typeorm';
import type { MailAddress } from './mail-address.ts';

export interface PersonRow {
  readonly id: string;
  readonly workspaceId: string;
  readonly siteId: string;
  readonly address: string;
  readonly addressKey: string;
  readonly state: PersonState;
}
const COLUMNS = `id, workspace_id AS "workspaceId", site_id AS "siteId", address, address_key AS "addressKey", state`;

/** The person of this address on this site, made when there is none, and locked until the transaction ends. */
export async function meetPerson(
  manager: EntityManager,
  { workspaceId, siteId }: { readonly workspaceId: string; readonly siteId: string },
  { address, key }: MailAddress,
): Promise<PersonRow> {
  const [row]: PersonRow[] = await manager.query(
    `INSERT INTO person (workspace_id, site_id, address, address_key, state) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (site_id, address_key) DO UPDATE SET address = excluded.address RETURNING ${COLUMNS}`,
    [workspaceId, siteId, address, key, nextPersonState(null, 'answered')],
  );
  return row as PersonRow;
}

export async function lockPerson(manager: EntityManager, id: string): Promise<PersonRow | undefined> {
  const [row]: PersonRow[] = await manager.query(`SELECT ${COLUMNS} FROM person WHERE id = $1 FOR UPDATE`, [
    id,
  ]);
  return row;
}

/** What they last answered in, where a message had several languages. */
export async function languageOf(manager: EntityManager, personId: string): Promise<string | null> {
  const [row]: { language: string }[] = await manager.query(
    'SELECT language FROM lead WHERE person_id = $1 AND language IS NOT NULL ORDER BY submitted_at DESC LIMIT 1',
    [personId],
  );
  return row?.language ?? null;
}

/** Until when somebody can confirm: as long as the latest link holds. */
export const confirmUntil = (manager: EntityManager, id: string, until: string): Promise<unknown> =>
  manager.query('UPDATE person SET confirm_until = $2 WHERE id = $1', [id, until]);

/** Lets a deed change how a person stands. The caller has locked them. Answers with the state after it. */
export async function recordDeed(
  manager: EntityManager,
  { id, state }: Pick<PersonRow, 'id' | 'state'>,
  deed: PersonDeed,
): Promise<PersonState> {
  const next = nextPersonState(state, deed);
  if (next !== state)
    await manager.query('UPDATE person SET state = $2, state_at = now() WHERE id = $1', [id, next]);
  return next;
}
