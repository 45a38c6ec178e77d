import type { DoNotWriteResult } from '@velarium/contract';
import type { EntityManager } from 'typeorm';
import type { Seal } from '../infra/seal.ts';
import { readMailAddress } from './mail-address.ts';

/** What an address is known by where nobody may read it back; each site's are its own. */
const hashOf = (seal: Seal, siteId: string, key: string): Buffer => seal.hash(`${siteId} ${key}`);

export async function neverWriteTo(
  manager: EntityManager,
  seal: Seal,
  siteId: string,
  keys: readonly string[],
  reason: 'erased' | 'list' | 'left',
): Promise<number> {
  const rows: unknown[] = await manager.query(
    `INSERT INTO do_not_write (site_id, address_hash, reason)
     SELECT $1, hash, $3 FROM unnest($2::bytea[]) AS hash ON CONFLICT DO NOTHING RETURNING reason`,
    [siteId, keys.map((key) => hashOf(seal, siteId, key)), reason],
  );
  return rows.length;
}

export async function isNeverWrittenTo(
  manager: EntityManager,
  seal: Seal,
  siteId: string,
  key: string,
): Promise<boolean> {
  const rows: unknown[] = await manager.query(
    'SELECT 1 FROM do_not_write WHERE site_id = $1 AND address_hash = $2',
    [siteId, hashOf(seal, siteId, key)],
  );
  return rows.length > 0;
}

/** Addresses one a line, or the first column of a table; lines that hold none are named and the others taken. */
export function readAddressList(text: string): { keys: string[]; faults: DoNotWriteResult['faults'] } {
  const keys = new Set<string>();
  const faults: DoNotWriteResult['faults'] = [];
  text.split(/\r\n|\r|\n/).forEach((written, at) => {
    const [first = ''] = written.replace(/^\uFEFF/, '').split(/[,;\t]/);
    const word = first.trim().replace(/^"(.*)"$/, '$1');
    if (word === '') return;
    const read = readMailAddress(word);
    if (read) keys.add(read.key);
    // The first line of a table names its columns.
    else if (at > 0 || word.includes('@')) faults.push({ line: at + 1, text: word.slice(0, 80) });
  });
  return { keys: [...keys], faults };
}
