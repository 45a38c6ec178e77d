import { type CastState, changesSince } from '@velarium/core';
import type { DataSource } from 'typeorm';
import { contentHash } from '../publishing/index.ts';

/** So long what is known of a rehearsal that goes on holding is not written anew. */
const NOTED_EVERY = '10 minutes';

interface HeldRow {
  readonly id: string;
  readonly heldAt: Date;
  readonly isSameVisit: boolean;
  readonly state: CastState;
}

/** When each rehearsal of a site last held against what ran, and what is otherwise since. */
export function createHeld(db: DataSource) {
  return {
    /** Notes that these, as they were read at that time, held against campaigns that stand as they do. */
    async note(siteId: string, ids: readonly string[], state: CastState, readAt: Date): Promise<void> {
      if (ids.length === 0) return;
      const body = JSON.stringify(state);
      const hash = contentHash(body);
      await db.transaction(async (manager) => {
        const [, noted]: [unknown, number] = await manager.query(
          `UPDATE rehearsal SET held_at = $5, held_cast = $3
            WHERE site_id = $1 AND id = ANY($2)
              AND (held_cast IS DISTINCT FROM $3 OR held_at < greatest(updated_at, now() - $4::interval))`,
          [siteId, ids, hash, NOTED_EVERY, readAt],
        );
        if (noted === 0) return;
        await manager.query(
          'INSERT INTO held_cast (site_id, hash, state) VALUES ($1, $2, $3) ON CONFLICT DO NOTHING',
          [siteId, hash, body],
        );
        await manager.query(
          `DELETE FROM held_cast WHERE site_id = $1 AND hash <> $2
              AND hash NOT IN (SELECT held_cast FROM rehearsal WHERE site_id = $1 AND held_cast IS NOT NULL)`,
          [siteId, hash],
        );
      });
    },

    /** Of these, those that have held: when they last did, and what is otherwise now. */
    async since(siteId: string, ids: readonly string[], state: CastState) {
      if (ids.length === 0) return new Map<string, { heldAt: string; changes: string[] }>();
      const rows: HeldRow[] = await db.query(
        `SELECT id, held_at AS "heldAt", held_at >= updated_at AS "isSameVisit", state
           FROM rehearsal r JOIN held_cast h ON h.site_id = r.site_id AND h.hash = r.held_cast
          WHERE r.site_id = $1 AND r.id = ANY($2)`,
        [siteId, ids],
      );
      return new Map(
        rows.map(({ id, heldAt, isSameVisit, state: before }) => [
          id,
          {
            heldAt: heldAt.toISOString(),
            changes: [
              ...(isSameVisit ? [] : ['The visit, or what is expected of it, has been changed.']),
              ...changesSince(before, state),
            ],
          },
        ]),
      );
    },
  };
}
