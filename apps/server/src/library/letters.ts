import { createHash } from 'node:crypto';
import type { BringLetters, Font, Letters, LookStyle } from '@velarium/contract';
import { lettersFamily } from '@velarium/contract';
import { charactersOf, lettersOf } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import { LettersError, MOST_LETTER_BYTES, onlyWith, readWeights } from './read-letters.ts';
import { type LettersFile, SHIPPED_LETTERS, shippedFiles } from './shipped-letters.ts';

/** Of one site: those that were brought, and those found on its pages. */
const MOST_OF_SITE = 40;
const MOST_FOUND = 12;

interface LettersRow extends Omit<Letters, 'weights' | 'like' | 'from'> {
  readonly kind: Font;
  readonly lightest: number;
  readonly heaviest: number;
  readonly is_brought: boolean;
}
const told = ({ kind, lightest, heaviest, is_brought, ...row }: LettersRow): Letters => ({
  ...row,
  like: kind,
  weights: [lightest, heaviest],
  from: is_brought ? 'team' : 'pages',
});
const COLUMNS = `id, name, family, kind, lightest, heaviest, licence, is_brought, octet_length(file) AS bytes`;
const hashOf = (bytes: Buffer | string, length: number) =>
  createHash('sha256').update(bytes).digest('hex').slice(0, length);

/** The letters of a site. Callers have made sure that the site is the workspace's. */
export function createLetters(db: DataSource) {
  const put = async (
    siteId: string,
    bytes: Buffer,
    { name, like, licence, family, isBrought }: BringLetters & { family?: string; isBrought: boolean },
  ): Promise<string> => {
    const [lightest, heaviest] = await readWeights(bytes);
    const id = hashOf(bytes, 16);
    await db.query(
      `INSERT INTO letters (site_id, id, name, family, kind, lightest, heaviest, licence, is_brought, file)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)
       ON CONFLICT (site_id, id, is_brought) DO UPDATE
         SET name = excluded.name, family = excluded.family, licence = excluded.licence, kind = excluded.kind,
             created_at = now()`,
      [siteId, id, name, family ?? lettersFamily(id), like, lightest, heaviest, licence, isBrought, bytes],
    );
    return id;
  };

  return {
    list: async (siteId: string): Promise<Letters[]> => {
      const rows: LettersRow[] = await db.query(
        `SELECT ${COLUMNS} FROM letters WHERE site_id = $1 ORDER BY is_brought DESC, name, lightest`,
        [siteId],
      );
      return [...rows.map(told), ...SHIPPED_LETTERS];
    },

    /**
     * Takes letters in that a team has brought.
     *
     * @throws {ProblemError} 422 with the reason, when the file is not taken.
     */
    async bring(siteId: string, bytes: Buffer, about: BringLetters): Promise<Letters> {
      const refuse = (detail: string) =>
        new ProblemError(422, 'no-letters', 'These letters are not taken', detail, [
          { path: 'file', message: detail },
        ]);
      if (bytes.length > MOST_LETTER_BYTES)
        throw refuse(
          `The file has ${Math.ceil(bytes.length / 1000)} kB, and a message may load none over 1,000 kB.`,
        );
      const [{ count }]: [{ count: number }] = await db.query(
        'SELECT count(*)::integer AS count FROM letters WHERE site_id = $1 AND is_brought',
        [siteId],
      );
      if (count >= MOST_OF_SITE)
        throw refuse(`A site has ${MOST_OF_SITE} at most. Remove some that no Look is set in.`);
      const id = await put(siteId, bytes, { ...about, isBrought: true }).catch((error) => {
        throw error instanceof LettersError ? refuse(error.message) : error;
      });
      return (await this.list(siteId)).find((one) => one.from === 'team' && one.id === id) as Letters;
    },

    /** Keeps what pages of the site are set in, the latest of it, for the studio to show it in; what cannot be read is left. */
    async keepFound(siteId: string, family: string, bytes: Buffer, like: Font): Promise<void> {
      await put(siteId, bytes, { name: family, family, like, licence: '', isBrought: false }).catch(
        (error) => {
          if (!(error instanceof LettersError)) throw error;
        },
      );
      await db.query(
        `DELETE FROM letters WHERE site_id = $1 AND NOT is_brought AND id NOT IN (
           SELECT id FROM letters WHERE site_id = $1 AND NOT is_brought ORDER BY created_at DESC LIMIT ${MOST_FOUND})`,
        [siteId],
      );
    },

    /** @throws {ProblemError} 409 While a Look is set in them. */
    async remove(siteId: string, id: string): Promise<void> {
      const [look]: { name: string }[] = await db.query(
        `SELECT name FROM look WHERE site_id = $1 AND style ->> 'fonts' LIKE '%' || $2 || '%' ORDER BY name`,
        [siteId, lettersFamily(id)],
      );
      if (look)
        throw new ProblemError(
          409,
          'letters-used',
          'A Look is set in these letters',
          `“${look.name}” is. Choose others there first.`,
        );
      const [, removed]: [unknown, number] = await db.query(
        'DELETE FROM letters WHERE site_id = $1 AND id = $2 AND is_brought',
        [siteId, id],
      );
      if (removed === 0) throw notFound('family of letters');
    },

    /** The whole file, for the studio. */
    async file(siteId: string, id: string): Promise<Buffer> {
      const [row]: { file: Buffer }[] = await db.query(
        'SELECT file FROM letters WHERE site_id = $1 AND id = $2 LIMIT 1',
        [siteId, id],
      );
      const file = row?.file ?? (await shippedFiles(id, '')?.[0]?.read());
      if (!file) throw notFound('family of letters');
      return file;
    },

    /** What a message in this Look loads of the letters it is set in: only those it is written with. */
    async loadedBy(
      siteId: string,
      look: LookStyle,
      file: Parameters<typeof charactersOf>[0],
      manager: EntityManager = db.manager,
    ) {
      const asked = lettersOf(look);
      if (asked.length === 0) return [];
      const text = charactersOf(file);
      const rows: (LettersRow & { file: Buffer })[] = await manager.query(
        `SELECT ${COLUMNS}, file FROM letters WHERE site_id = $1 AND id = ANY($2) AND is_brought`,
        [siteId, asked],
      );
      const families = [
        ...rows.map((row) => ({
          id: row.id,
          weights: told(row).weights,
          files: [{ read: async () => row.file, text }],
        })),
        ...SHIPPED_LETTERS.filter(({ id }) => asked.includes(id)).map(({ id, weights }) => ({
          id,
          weights,
          files: shippedFiles(id, text) ?? [],
        })),
      ];
      const keep = async (hash: string, { read, text: own }: LettersFile): Promise<void> => {
        const [known]: unknown[] = await manager.query(
          'SELECT FROM letter_file WHERE site_id = $1 AND hash = $2',
          [siteId, hash],
        );
        if (!known)
          await manager.query(
            'INSERT INTO letter_file (site_id, hash, bytes) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING',
            [siteId, hash, await onlyWith(await read(), own)],
          );
      };
      const loaded = families.map(({ id, weights, files }) => {
        const family = lettersFamily(hashOf(`${id} ${text}`, id.length));
        // Files of one family go by one name: what one has not got is looked for in the other.
        return files.map(async (file, n) => {
          const hash = hashOf(n === 0 ? `${id} ${text}` : `${id} ${n} ${text}`, 32);
          await keep(hash, file);
          return { id, family, weights, path: `/letters/${hash}.woff2` };
        });
      });
      return Promise.all(loaded.flat());
    },

    /** What messages load, by its name. */
    async served(hash: string): Promise<Buffer | undefined> {
      const [row]: { bytes: Buffer }[] = await db.query(
        'SELECT bytes FROM letter_file WHERE hash = $1 LIMIT 1',
        [hash],
      );
      return row?.bytes;
    },
  };
}
