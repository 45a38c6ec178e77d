import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';

/**
 * What an edge keeps on its own disk, so that it can serve what it last knew after a start without a database. Names
 * come from us: keys, ids and hashes that were checked.
 */
export interface KeptFiles {
  read(name: string): Promise<string | undefined>;
  /** Whole or not at all: a process that is killed leaves the old one. A full disk is no error of the caller's. */
  write(name: string, text: string): Promise<void>;
}

export function createKeptFiles(folder: string): KeptFiles {
  let count = 0;
  return {
    read: (name) => readFile(join(folder, name), 'utf8').catch(() => undefined),
    async write(name, text) {
      const path = join(folder, name);
      const draft = `${path}.${process.pid}-${++count}`;
      try {
        await mkdir(dirname(path), { recursive: true, mode: 0o700 });
        await writeFile(draft, text, { mode: 0o600 });
        await rename(draft, path);
      } catch {
        // Kept for bad days only; the good ones go on without.
      }
    },
  };
}
