import type { PeopleNote } from '@velarium/contract';
import type { EntityManager } from 'typeorm';

export interface NewNote {
  readonly siteId: string;
  readonly by: string;
  readonly what: PeopleNote['what'];
  readonly count: number;
  readonly mails?: number;
}

/** Writes down who did something with people's answers; says nothing of whose they were. */
export async function noteDeed(
  manager: EntityManager,
  { siteId, by, what, count, mails = 0 }: NewNote,
): Promise<{ id: string; at: Date }> {
  const [row]: { id: string; at: Date }[] = await manager.query(
    'INSERT INTO people_note (site_id, by_name, what, count, mails) VALUES ($1, $2, $3, $4, $5) RETURNING id, at',
    [siteId, by, what, count, mails],
  );
  return row as { id: string; at: Date };
}

const LISTED = 200;
export async function listNotes(manager: EntityManager, siteId: string): Promise<PeopleNote[]> {
  const rows: (Omit<PeopleNote, 'at'> & { at: Date })[] = await manager.query(
    'SELECT id, at, by_name AS by, what, count FROM people_note WHERE site_id = $1 ORDER BY at DESC LIMIT $2',
    [siteId, LISTED],
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }));
}
