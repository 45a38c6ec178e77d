import type { Cast, CastWithRule, KeptRehearsal, Rehearsed, SaveRehearsal } from '@velarium/contract';
import { createRehearser, judge, outcomeOf } from '@velarium/core';
import type { DataSource } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { PublishingService } from '../publishing/index.ts';
import type { SiteService } from '../sites/index.ts';
import { createHeld } from './held.ts';

/** More would take longer than anybody waits for at a publish. */
const MOST = 500;
/** How long they may take together; five hundred usual ones take about a second. */
const PATIENCE_MS = 15_000;

interface RehearsalServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly publishing: PublishingService;
}

/** Visits that are kept, and what becomes of them; core plays them. */
export function createRehearsalService({ db, sites, publishing }: RehearsalServices) {
  const held = createHeld(db);
  const list = async (workspaceId: string, siteId: string): Promise<KeptRehearsal[]> => {
    await sites.get(workspaceId, siteId);
    const rows: (Omit<KeptRehearsal, 'updatedAt'> & { updatedAt: Date })[] = await db.query(
      `SELECT id, name, rehearsal, updated_at AS "updatedAt" FROM rehearsal WHERE site_id = $1 ORDER BY created_at`,
      [siteId],
    );
    return rows.map((row) => ({ ...row, updatedAt: row.updatedAt.toISOString() }));
  };

  return {
    list,

    /** The campaigns a visit is played against; see {@link Cast}. */
    async cast(workspaceId: string, siteId: string, of: string): Promise<Cast> {
      const { key } = await sites.get(workspaceId, siteId);
      return publishing.cast(key, of);
    },

    /** @throws {ProblemError} 404 when the campaign is not of this site, or in the archive. */
    async castWith(workspaceId: string, siteId: string, { of, rule }: CastWithRule): Promise<Cast> {
      const { key } = await sites.get(workspaceId, siteId);
      const cast = await publishing.cast(key, of, rule);
      if (!cast.campaigns.some(({ id }) => id === of)) throw notFound('campaign');
      return cast;
    },

    /** Keeps a rehearsal under its name, a new one or in the place of one that was kept. */
    async save(
      workspaceId: string,
      siteId: string,
      { name, rehearsal }: SaveRehearsal,
      id?: string,
    ): Promise<KeptRehearsal> {
      const known = await list(workspaceId, siteId);
      if (!id && known.length >= MOST)
        throw new ProblemError(
          409,
          'too-many-rehearsals',
          'There are enough rehearsals',
          `A site keeps at most ${MOST}, since each is played at every publish. Remove one first.`,
        );
      const body = JSON.stringify(rehearsal);
      const put = (): Promise<{ id: string }[]> =>
        id
          ? db
              .query(
                'UPDATE rehearsal SET name = $3, rehearsal = $4, updated_at = now() WHERE id = $1 AND site_id = $2 RETURNING id',
                [id, siteId, name, body],
              )
              .then(([updated]) => updated)
          : db.query('INSERT INTO rehearsal (site_id, name, rehearsal) VALUES ($1, $2, $3) RETURNING id', [
              siteId,
              name,
              body,
            ]);
      const rows = await put().catch((error) => {
        // Two may choose one name at once, so the database is asked.
        if (!String(error).includes('rehearsal_name')) throw error;
        throw new ProblemError(
          409,
          'name-taken',
          'This name is taken',
          `Another rehearsal of this site is called “${name}”. Choose another name.`,
          [{ path: 'name', message: 'is taken' }],
        );
      });
      const [row] = rows;
      if (!row) throw notFound('rehearsal');
      return { id: row.id, name, rehearsal, updatedAt: new Date().toISOString() };
    },

    async remove(workspaceId: string, siteId: string, id: string): Promise<void> {
      await sites.get(workspaceId, siteId);
      const [, removed]: [unknown, number] = await db.query(
        'DELETE FROM rehearsal WHERE id = $1 AND site_id = $2',
        [id, siteId],
      );
      if (removed === 0) throw notFound('rehearsal');
    },

    /** Plays every rehearsal of a site and says what became of what is expected of it. */
    async rehearse(workspaceId: string, siteId: string, of: string): Promise<Rehearsed[]> {
      const site = await sites.get(workspaceId, siteId);
      // What is saved after this was not played.
      const [{ now: readAt }]: [{ now: Date }] = await db.query('SELECT clock_timestamp() AS now');
      const kept = await list(workspaceId, siteId);
      if (kept.length === 0) return [];
      const { cast, state } = await publishing.castWithState(site.key, of);
      const { manifest, campaigns } = cast;
      const names = new Map(campaigns.map(({ id, name }) => [id, name]));
      const write = (atMs: number) =>
        new Date(atMs).toLocaleString('en-GB', {
          timeZone: site.timeZone,
          dateStyle: 'medium',
          timeStyle: 'short',
        });
      const nameOf = (campaign: string) => names.get(campaign) ?? 'a campaign that is gone';
      const origin = site.origins[0] ?? 'https://site.example';
      const play = createRehearser({ manifest, origin });
      const untilMs = Date.now() + PATIENCE_MS;
      const played: Rehearsed[] = [];
      for (const { id, name, rehearsal } of kept) {
        const expectations = judge(play(rehearsal), rehearsal, nameOf, write);
        played.push({ id, name, expectations, since: null });
        if (Date.now() > untilMs)
          throw new ProblemError(
            503,
            'too-long',
            'The rehearsals take too long',
            `Only ${played.length} of ${kept.length} were played. Remove some, or make their visits shorter.`,
          );
        // Others are served between two of them.
        await new Promise((resolve) => setImmediate(resolve));
      }
      const { asked, failing } = outcomeOf(played);
      if (of === 'live')
        await held.note(
          siteId,
          asked.filter((one) => !failing.includes(one)).map(({ id }) => id),
          state,
          readAt,
        );
      const since = await held.since(
        siteId,
        failing.map(({ id }) => id),
        state,
      );
      return played.map((one) => ({ ...one, since: since.get(one.id) ?? null }));
    },
  };
}
export type RehearsalService = ReturnType<typeof createRehearsalService>;
