import sharp from 'sharp';
import type { DataSource, EntityManager } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';

/** Pixels along the longer side; larger ones are for printing, not for reading. */
const MOST_SIDE = 2400;
const MOST_PIXELS = 40_000_000;
const TAKEN = new Set(['png', 'jpeg', 'webp', 'heif', 'gif']);

/**
 * A picture somebody sent, drawn anew: whatever else the file held, its place and camera too, is left behind.
 * A file that is no picture is refused with words for the person.
 */
export async function readAttachment(fieldId: string, label: string, base64: string): Promise<Buffer> {
  const bytes = Buffer.from(base64, 'base64');
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    const { format } = await picture.metadata();
    if (!TAKEN.has(format)) throw new Error(`expected a picture, got ${format}`);
    return await picture
      .rotate()
      .resize({ width: MOST_SIDE, height: MOST_SIDE, fit: 'inside', withoutEnlargement: true })
      .webp({ quality: 82 })
      .toBuffer();
  } catch {
    const message = `${label}: please choose a PNG, JPEG, WebP, AVIF or GIF picture.`;
    throw new ProblemError(422, 'invalid-input', 'Something in this is not right', message, [
      { path: `fields.${fieldId}`, message },
    ]);
  }
}

export interface NewAttachment {
  readonly id: string;
  readonly siteId: string;
  readonly leadId: string;
  readonly bytes: Buffer;
}

/** In the caller's transaction; a lead that was stored before keeps what came with it then. */
export const storeAttachment = (
  manager: EntityManager,
  { id, siteId, leadId, bytes }: NewAttachment,
): Promise<unknown> =>
  manager.query(
    `INSERT INTO attachment (id, site_id, lead_id, bytes)
     SELECT $1::uuid, $2, l.id, $4 FROM lead l
      WHERE l.id = $3 AND l.fields @> jsonb_build_array(jsonb_build_object('attachment', $1::uuid::text))
     ON CONFLICT DO NOTHING`,
    [id, siteId, leadId, bytes],
  );

/** Everything that came with a person's answers. */
export const attachmentsOf = (
  db: DataSource,
  siteId: string,
  personId: string,
): Promise<{ id: string; answer: string; bytes: Buffer }[]> =>
  db.query(
    `SELECT a.id, a.lead_id AS answer, a.bytes FROM attachment a JOIN lead l ON l.id = a.lead_id
      WHERE a.site_id = $1 AND l.person_id = $2 ORDER BY l.submitted_at DESC`,
    [siteId, personId],
  );

export async function findAttachment(db: DataSource, siteId: string, id: string): Promise<Buffer> {
  const [row]: { bytes: Buffer }[] = await db.query(
    'SELECT bytes FROM attachment WHERE id = $1 AND site_id = $2',
    [id, siteId],
  );
  if (!row) throw notFound('attachment');
  return row.bytes;
}
