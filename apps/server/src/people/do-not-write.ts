import type { DoNotWriteResult } from '@velarium/contract';
import type { EntityManager } from 'typeorm';
import type { Seal } from '../infra/seal.ts';
import { readMailAddress } from './mail-address.ts';

/** What an address is known by where nobody may read it back, by each of the installation's secrets; each site's are its own. */
const hashesOf = (seal: Seal, siteId: string, key: string): Buffer[] => seal.hashes(`${siteId} ${key}`);

export async function neverWriteTo(
  manager: EntityManager,
  seal: Seal,
  siteId: string,
  keys: readonly string[],
  reason: 'erased' | 'list' | 'left',
): Promise<number> {
  const rows: unknown[] = await manager.query(
    `INSERT INTO do_not_write (site_id, address_hash, reason, made_with)
     SELECT $1, hash, $3, $4 FROM unnest($2::bytea[]) AS hash ON CONFLICT DO NOTHING RETURNING reason`,
    [siteId, keys.map((key) => hashesOf(seal, siteId, key)[0]), reason, seal.fingerprints[0]],
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
    'SELECT 1 FROM do_not_write WHERE site_id = $1 AND address_hash = ANY($2::bytea[])',
    [siteId, hashesOf(seal, siteId, key)],
  );
  return rows.length > 0;
}

/**
 * Addresses can be known again only by the secret they were hashed with, so one that is missing is no small matter: somebody who was
 * erased would be written to.
 *
 * @throws {Error} With what to do, where addresses were hashed with a secret that is not given.
 */
export async function requireSecretsOfAddresses(manager: EntityManager, seal: Seal): Promise<void> {
  // Those of before secrets could be changed were made with the only one there was.
  await manager.query('UPDATE do_not_write SET made_with = $1 WHERE made_with IS NULL', [
    seal.fingerprints.at(-1),
  ]);
  const [{ count }]: [{ count: string }] = await manager.query(
    'SELECT count(*) FROM do_not_write WHERE made_with <> ALL($1)',
    [seal.fingerprints],
  );
  if (count !== '0')
    throw new Error(
      `The secret is not complete: ${count} addresses that must not be written to were kept with one that is not given any more. Give it again, as a line below the present one.`,
    );
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
