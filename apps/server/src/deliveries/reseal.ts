import type { DataSource } from 'typeorm';
import type { Seal } from '../infra/seal.ts';

/** Tables in which something is sealed, by what names a row. */
const SEALED = { connection: 'id', sending: 'workspace_id' } as const;

/**
 * Seals anew, with the present secret, what one of before has sealed, so that that one can be given up. A row that somebody
 * changes meanwhile is theirs. Returns how many were.
 */
export async function reseal(db: DataSource, seal: Seal): Promise<number> {
  let count = 0;
  for (const [table, id] of Object.entries(SEALED)) {
    const rows: { id: string; sealed: string }[] = await db.query(`SELECT ${id} AS id, sealed FROM ${table}`);
    for (const { id: of, sealed } of rows.filter((row) => !seal.isCurrent(row.sealed))) {
      const [, changed]: [unknown, number] = await db.query(
        `UPDATE ${table} SET sealed = $3 WHERE ${id} = $1 AND sealed = $2`,
        [of, sealed, seal.close(seal.open(sealed))],
      );
      count += changed;
    }
  }
  return count;
}
