import { randomBytes, randomUUID } from 'node:crypto';
import type { BroughtCalendar, SaveSeasonDays, Season, SeasonNote } from '@velarium/contract';
import { stretchesBetween } from '@velarium/core';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import { isOverTime } from '../infra/within-time.ts';
import type { SiteService } from '../sites/index.ts';
import { type CalendarEvent, type ReadCalendar, readCalendar, writeCalendar } from './calendar.ts';

const DAY_MS = 86_400_000;
/** Notes of a site at most. */
const MOST_NOTES = 1000;
/** Of what a file left out, so many are named. */
const MOST_LEFT = 20;
/** What is given out: so far back, and so far ahead. */
const BACK_DAYS = 90;
const AHEAD_DAYS = 400;
/** Of a campaign with hours the first stretches are enough for a calendar. */
const MOST_STRETCHES = 100;

export interface SeasonServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
  readonly studioOrigin: string;
}

/** The days of a site's year: what a team notes down, brought in from a calendar and given out as one. */
export function createSeasonService({ db, sites, campaigns, studioOrigin }: SeasonServices) {
  const notesOf = (siteId: string): Promise<SeasonNote[]> =>
    db.query(
      `SELECT id, first_day::text AS "from", last_day::text AS "to", text, source FROM season_note
        WHERE site_id = $1 ORDER BY first_day, text, id LIMIT $2`,
      [siteId, MOST_NOTES],
    );
  async function read(siteId: string): Promise<Season> {
    const [row]: { token: string }[] = await db.query('SELECT token FROM season_address WHERE site_id = $1', [
      siteId,
    ]);
    return {
      notes: await notesOf(siteId),
      address: row ? `${studioOrigin}/calendar/${row.token}.ics` : null,
    };
  }
  const insert = (
    manager: EntityManager,
    siteId: string,
    days: readonly SaveSeasonDays[],
    source: SeasonNote['source'],
  ) =>
    manager.query(
      `INSERT INTO season_note (id, site_id, first_day, last_day, text, source)
       SELECT id, $1, first_day, last_day, text, $6
         FROM unnest($2::uuid[], $3::date[], $4::date[], $5::text[]) AS put (id, first_day, last_day, text)`,
      [
        siteId,
        days.map(() => randomUUID()),
        days.map(({ from }) => from),
        days.map(({ to }) => to),
        days.map(({ text }) => text),
        source,
      ],
    );

  return {
    async read(workspaceId: string, siteId: string): Promise<Season> {
      await sites.get(workspaceId, siteId);
      return read(siteId);
    },
    async add(workspaceId: string, siteId: string, days: SaveSeasonDays): Promise<Season> {
      await sites.get(workspaceId, siteId);
      if ((await notesOf(siteId)).length >= MOST_NOTES)
        throw new ProblemError(
          409,
          'too-many',
          'Too many notes',
          `A season holds ${MOST_NOTES}. Take some out first.`,
        );
      await insert(db.manager, siteId, [days], 'team');
      return read(siteId);
    },
    async remove(workspaceId: string, siteId: string, id: string): Promise<Season> {
      await sites.get(workspaceId, siteId);
      const [, count]: [unknown, number] = await db.query(
        'DELETE FROM season_note WHERE site_id = $1 AND id = $2',
        [siteId, id],
      );
      if (count === 0) throw notFound('note');
      return read(siteId);
    },
    /** Takes what a calendar says in place of what one said before; the team's own notes stay. */
    async bring(workspaceId: string, siteId: string, text: string): Promise<BroughtCalendar> {
      await sites.get(workspaceId, siteId);
      let calendar: ReadCalendar;
      try {
        calendar = readCalendar(text, Date.now());
      } catch (error) {
        if (isOverTime(error))
          throw new ProblemError(
            422,
            'too-large',
            'Too large a calendar',
            'It takes too long to read. Bring in a smaller one. Nothing was changed.',
          );
        throw new ProblemError(
          422,
          'invalid-input',
          'Not a calendar',
          'This is no iCalendar file (.ics). Nothing was changed.',
        );
      }
      const days = calendar.days.slice(0, MOST_NOTES);
      // What a calendar said before is not given up for one of which nothing can be had.
      if (days.length === 0 && calendar.left.length > 0)
        throw new ProblemError(
          422,
          'invalid-input',
          'Nothing of it could be taken',
          `${calendar.left.slice(0, 3).join('; ')}. Nothing was changed.`,
        );
      const left = [...calendar.left];
      if (left.length > MOST_LEFT) left.splice(MOST_LEFT, left.length, `${left.length - MOST_LEFT} more`);
      if (calendar.days.length > days.length)
        left.push(`${calendar.days.length - days.length} more than a season holds`);
      await db.transaction(async (manager) => {
        await manager.query("DELETE FROM season_note WHERE site_id = $1 AND source = 'calendar'", [siteId]);
        await insert(manager, siteId, days, 'calendar');
      });
      return { season: await read(siteId), brought: days.length, left };
    },
    /** Gives the season out at a new address, or at none: one that was given before leads nowhere from now on. */
    async giveOut(workspaceId: string, siteId: string, isGiven: boolean): Promise<Season> {
      await sites.get(workspaceId, siteId);
      if (isGiven)
        await db.query(
          `INSERT INTO season_address (site_id, token) VALUES ($1, $2)
           ON CONFLICT (site_id) DO UPDATE SET token = excluded.token`,
          [siteId, randomBytes(24).toString('base64url')],
        );
      else await db.query('DELETE FROM season_address WHERE site_id = $1', [siteId]);
      return read(siteId);
    },
    /** The calendar behind an address: what runs and when, and the team's notes. */
    async calendar(token: string): Promise<string> {
      const [row]: { siteId: string; name: string; timeZone: string; workspaceId: string }[] = await db.query(
        `SELECT site.id AS "siteId", site.name, site.time_zone AS "timeZone", workspace_id AS "workspaceId"
           FROM season_address JOIN site ON site.id = site_id WHERE token = $1`,
        [token],
      );
      if (!row) throw notFound('calendar');
      const nowMs = Date.now();
      const running = await campaigns.running(row.siteId);
      const events = running.flatMap(({ id, name, document }): CalendarEvent[] => {
        const { schedule } = document.rule.limits;
        const open = schedule
          ? stretchesBetween(schedule, nowMs - BACK_DAYS * DAY_MS, nowMs + AHEAD_DAYS * DAY_MS, row.timeZone)
          : [];
        // What runs without an end is no event.
        return open
          .slice(0, MOST_STRETCHES)
          .filter(([, toMs]) => toMs < nowMs + AHEAD_DAYS * DAY_MS)
          .map(([fromMs, toMs]) => ({
            uid: `${id}-${fromMs}@velarium`,
            summary: name,
            when: { fromMs, toMs },
          }));
      });
      const notes = (await notesOf(row.siteId))
        .filter(({ source }) => source === 'team')
        .map(({ id, text, from, to }) => ({ uid: `${id}@velarium`, summary: text, when: { from, to } }));
      return writeCalendar(row.name, [...events, ...notes], nowMs);
    },
  };
}
export type SeasonService = ReturnType<typeof createSeasonService>;
