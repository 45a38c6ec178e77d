import type { Picture, PictureFile, Pictures } from '@velarium/contract';
import { DRAWN_FILES } from '@velarium/core';
import sharp from 'sharp';
import { type DataSource, type EntityManager, In } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import { PictureEntity, PictureFileEntity, type PictureRow } from './entities.ts';

/** Widths a picture is made in, CSS pixels; never wider than it came. */
const WIDTHS = [320, 640, 1280];
/** What a phone of today loads. */
const PHONE_WIDTH = 640;
/** Pixels a picture may unfold to: what is larger is a mistake or an attack. */
const MOST_PIXELS = 40_000_000;
/** A drawing has no size of its own that matters; it is made sharp enough for the widest. */
const DRAWING_DENSITY = 144;

const TAKEN = new Set(['png', 'jpeg', 'webp', 'avif', 'heif', 'gif', 'svg']);

const fileOf = ({ id, width, height, widths }: PictureRow): PictureFile => ({
  path: `/pictures/${id}`,
  width,
  height,
  widths,
});

/** Makes the sizes and formats of an uploaded picture. What it says of its camera and place is left out. */
async function makeSizes(bytes: Buffer) {
  const open = () =>
    sharp(bytes, {
      limitInputPixels: MOST_PIXELS,
      animated: true,
      density: DRAWING_DENSITY,
      failOn: 'error',
    });
  const { format, width = 0, height = 0, pageHeight, orientation = 1 } = await open().metadata();
  if (!format || !TAKEN.has(format)) throw new Error(`expected a picture, got ${format ?? 'something else'}`);
  const isTurned = orientation >= 5;
  const [w, h] = isTurned ? [height, width] : [width, pageHeight ?? height];
  const isAnimated = pageHeight !== undefined && pageHeight < height;
  const widths = [...new Set([...WIDTHS.filter((one) => one < w), Math.min(w, WIDTHS.at(-1) ?? w)])];
  const files: { width: number; type: string; bytes: Buffer }[] = [];
  for (const one of widths) {
    // A drawing becomes pixels here, so nothing of what it could run is ever served.
    const sized = () => open().rotate().resize({ width: one, withoutEnlargement: true });
    files.push({ width: one, type: 'image/webp', bytes: await sized().webp({ quality: 78 }).toBuffer() });
    if (!isAnimated)
      files.push({
        width: one,
        type: 'image/avif',
        bytes: await sized().avif({ quality: 55, effort: 3 }).toBuffer(),
      });
  }
  const forPhone = files.filter(({ width: one }) => one >= Math.min(PHONE_WIDTH, w));
  return {
    width: w,
    height: h,
    widths,
    files,
    weight: Math.min(...forPhone.map((file) => file.bytes.length)),
  };
}

/** The pictures of a site. Callers have made sure that the site is the workspace's. */
export function createPictures(db: DataSource) {
  const pictures = db.getRepository(PictureEntity);
  const find = async (siteId: string, id: string): Promise<PictureRow> => {
    const row = await pictures.findOneBy({ id, siteId });
    if (!row) throw notFound('picture');
    return row;
  };
  const usesOf = async (siteId: string): Promise<Map<string, string[]>> => {
    const rows: { name: string; picture: string }[] = await db.query(
      `SELECT DISTINCT name, found #>> '{}' AS picture FROM campaign, jsonb_path_query(draft, '$.**.picture') AS found
        WHERE site_id = $1 AND jsonb_typeof(found) = 'string' ORDER BY name`,
      [siteId],
    );
    const uses = new Map<string, string[]>();
    for (const { name, picture } of rows) uses.set(picture, [...(uses.get(picture) ?? []), name]);
    return uses;
  };
  const told = (row: PictureRow, usedBy: string[] = []): Picture => ({
    id: row.id,
    name: row.name,
    alt: row.alt,
    file: fileOf(row),
    weight: row.weight,
    usedBy,
    createdAt: row.createdAt.toISOString(),
  });
  return {
    async list(siteId: string): Promise<Picture[]> {
      const rows = await pictures.find({ where: { siteId }, order: { createdAt: 'DESC', id: 'ASC' } });
      const uses = await usesOf(siteId);
      return rows.map((row) => told(row, uses.get(row.id)));
    },
    /** Takes a picture in and makes it in every size; what is none is told so and leaves nothing behind. */
    async add(siteId: string, name: string, bytes: Buffer): Promise<Picture> {
      const made = await makeSizes(bytes).catch(() => {
        throw new ProblemError(
          422,
          'no-picture',
          'This is no picture we can read',
          `“${name}” is not a whole PNG, JPEG, WebP, AVIF, GIF or SVG, or is larger than 40 million pixels.`,
          [{ path: 'file', message: 'is no picture we can read' }],
        );
      });
      const { files, ...sizes } = made;
      return db.transaction(async (manager) => {
        const row = await manager.getRepository(PictureEntity).save({ siteId, name, alt: '', ...sizes });
        await manager
          .getRepository(PictureFileEntity)
          .insert(files.map((file) => ({ pictureId: row.id, ...file })));
        return told(row);
      });
    },
    async change(siteId: string, id: string, words: { name: string; alt: string }): Promise<Picture> {
      const row = await pictures.save({ ...(await find(siteId, id)), ...words });
      return told(row, (await usesOf(siteId)).get(id));
    },
    async remove(siteId: string, id: string): Promise<void> {
      await find(siteId, id);
      const [inUse] = (await usesOf(siteId)).get(id) ?? [];
      if (inUse !== undefined) {
        throw new ProblemError(
          409,
          'in-use',
          'This picture is in use',
          `The campaign “${inUse}” shows it. Choose another picture there first.`,
        );
      }
      await pictures.delete({ id, siteId });
    },
    /** The pictures with these names that the site may show. */
    async files(
      siteId: string,
      refs: readonly string[],
      manager: EntityManager = db.manager,
    ): Promise<Pictures> {
      const ids = refs.filter((ref) => !ref.startsWith('drawn:'));
      const rows =
        ids.length === 0 ? [] : await manager.getRepository(PictureEntity).findBy({ siteId, id: In(ids) });
      const drawn = refs.flatMap((ref) => (DRAWN_FILES[ref] ? [[ref, DRAWN_FILES[ref]] as const] : []));
      return Object.fromEntries([...drawn, ...rows.map((row) => [row.id, fileOf(row)] as const)]);
    },
    /** Bytes for a browser that takes these types; pictures are public wherever a page shows them. */
    async serve(
      id: string,
      width: number,
      takesAvif: boolean,
    ): Promise<{ type: string; bytes: Buffer } | undefined> {
      const rows = await db
        .getRepository(PictureFileEntity)
        .find({ where: { pictureId: id, width }, order: { type: 'ASC' } });
      return rows.find(({ type }) => takesAvif || type !== 'image/avif');
    },
  };
}
export type PictureStore = ReturnType<typeof createPictures>;
