import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { DataSource } from 'typeorm';
import type { KeptFiles } from './kept-files.ts';
import { type ServedFile, servedFile } from './served-file.ts';

/** How long the files of an earlier release are kept: a tab may stay open that long before it needs one. */
const KEPT_DAYS = 30;
const NAME = /^[a-z]{2,20}-[0-9a-f]{8,16}\.js$/;

/** The files of one release of the tag, as they were built. */
export interface TagRelease {
  readonly tag: string;
  /** By their names, which carry their content's hash. */
  readonly chunks: ReadonlyMap<string, string>;
}

export function readRelease(folder: string): TagRelease {
  const text = (name: string) => readFileSync(join(folder, name), 'utf8');
  const names = Object.values(JSON.parse(text('files.json')) as Record<string, string>);
  return { tag: text('tag.js'), chunks: new Map(names.map((name) => [name, text(name)])) };
}

/** Puts this release beside the earlier ones, so that any edge can serve what a tag of before still asks for. */
export async function keepRelease(db: DataSource, { chunks }: TagRelease): Promise<void> {
  await db.query(
    `INSERT INTO tag_file (name, body) SELECT * FROM unnest($1::text[], $2::text[])
     ON CONFLICT (name) DO UPDATE SET released_at = now()`,
    [[...chunks.keys()], [...chunks.values()]],
  );
  await db.query(`DELETE FROM tag_file WHERE released_at < now() - make_interval(days => $1)`, [KEPT_DAYS]);
}

/** The file of an earlier release, if it is still kept. */
export async function findReleased(db: DataSource, name: string): Promise<string | undefined> {
  const [row]: { body: string }[] = await db.query('SELECT body FROM tag_file WHERE name = $1', [name]);
  return row?.body;
}

/** Serves this release from memory and earlier ones from `findOlder`, or from disk while that cannot be asked. */
export async function createTagFiles(
  release: TagRelease,
  kept: KeptFiles,
  findOlder: (name: string) => Promise<string | undefined>,
) {
  const ready = new Map<string, ServedFile>();
  for (const [name, text] of release.chunks) {
    ready.set(name, await servedFile(text, ''));
    void kept.write(`chunks/${name}`, text);
  }
  return {
    tag: await servedFile(release.tag, ''),
    async find(name: string): Promise<ServedFile | undefined> {
      const known = ready.get(name);
      if (known || !NAME.test(name)) return known;
      const text = (await kept.read(`chunks/${name}`)) ?? (await findOlder(name));
      if (text === undefined) return undefined;
      void kept.write(`chunks/${name}`, text);
      const file = await servedFile(text, '');
      // Only what was once released is found, so this stays small.
      ready.set(name, file);
      return file;
    },
  };
}
export type TagFiles = Awaited<ReturnType<typeof createTagFiles>>;
