import type { CampaignResults, Goal, SaveGoal, Stretch } from '@velarium/contract';
import type { DataSource } from 'typeorm';
import { notFound, ProblemError } from '../infra/problem.ts';
import { countEvents } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';

/** More would only be noise beside each other: chance alone calls one in twenty. */
const MOST = 20;

export function createGoalService({ db, sites }: { readonly db: DataSource; readonly sites: SiteService }) {
  return {
    async list(workspaceId: string, siteId: string): Promise<Goal[]> {
      await sites.get(workspaceId, siteId);
      await countEvents(db);
      const rows: (Omit<Goal, 'createdAt'> & { createdAt: Date })[] = await db.query(
        `SELECT goal.id, name, deed, days, created_at AS "createdAt",
                (SELECT count(DISTINCT visitor)::integer FROM goal_reached
                  WHERE goal_id = goal.id AND at > now() - interval '28 days') AS reached
           FROM goal WHERE site_id = $1 ORDER BY created_at`,
        [siteId],
      );
      return rows.map((row) => ({ ...row, createdAt: row.createdAt.toISOString() }));
    },

    /** Makes a goal, or changes the name and the days of one: what it counts stays, or its numbers would mix two things. */
    async save(
      workspaceId: string,
      siteId: string,
      { name, deed, days }: SaveGoal,
      id?: string,
    ): Promise<Goal[]> {
      await sites.get(workspaceId, siteId);
      const [{ count }]: [{ count: number }] = await db.query(
        'SELECT count(*)::integer AS count FROM goal WHERE site_id = $1',
        [siteId],
      );
      if (id === undefined && count >= MOST)
        throw new ProblemError(
          409,
          'too-many-goals',
          'There are enough goals',
          `A site has at most ${MOST}: among more, chance alone finds something. Remove one first.`,
        );
      try {
        const rows: unknown[] = id
          ? (
              await db.query(
                'UPDATE goal SET name = $3, days = $4 WHERE id = $1 AND site_id = $2 RETURNING id',
                [id, siteId, name, days],
              )
            )[0]
          : await db.query(
              'INSERT INTO goal (site_id, name, deed, days) VALUES ($1, $2, $3, $4) RETURNING id',
              [siteId, name, JSON.stringify(deed), days],
            );
        if (rows.length === 0) throw notFound('goal');
      } catch (error) {
        if (!String(error).includes('goal_name')) throw error;
        throw new ProblemError(
          409,
          'name-taken',
          'This name is taken',
          `Another goal of this site is called “${name}”. Choose another name.`,
          [{ path: 'name', message: 'is taken' }],
        );
      }
      return this.list(workspaceId, siteId);
    },

    async remove(workspaceId: string, siteId: string, id: string): Promise<void> {
      await sites.get(workspaceId, siteId);
      const [, removed]: [unknown, number] = await db.query(
        'DELETE FROM goal WHERE id = $1 AND site_id = $2',
        [id, siteId],
      );
      if (removed === 0) throw notFound('goal');
    },
  };
}
export type GoalService = ReturnType<typeof createGoalService>;

/**
 * How many reached each goal of the site within its days after they first met a campaign in a stretch, and how many of those
 * from whom it was withheld. Counted from when a goal was made: before, nobody could be seen to reach it.
 */
export async function readGoals(
  db: DataSource,
  {
    campaignId,
    siteId,
    period,
  }: { readonly campaignId: string; readonly siteId: string; readonly period: Stretch },
): Promise<CampaignResults['goals']> {
  const rows: (Pick<CampaignResults['goals'][number], 'id' | 'name' | 'days'> &
    Record<'visitors' | 'reached' | 'withheld' | 'withheldReached', string>)[] = await db.query(
    `WITH entered AS (
       SELECT visitor, min(first_at) AS at, bool_or(kind = 'shown') AS is_shown FROM visitor_day
        WHERE campaign_id = $1 AND kind IN ('shown', 'held') AND day BETWEEN $2 AND $3 GROUP BY visitor)
     SELECT goal.id, goal.name, goal.days,
            count(*) FILTER (WHERE is_shown) AS visitors,
            count(did.it) FILTER (WHERE is_shown) AS reached,
            count(*) FILTER (WHERE NOT is_shown) AS withheld,
            count(did.it) FILTER (WHERE NOT is_shown) AS "withheldReached"
       FROM goal JOIN entered ON entered.at >= goal.created_at
       LEFT JOIN LATERAL (
         SELECT 1 AS it FROM goal_reached hit
          WHERE hit.goal_id = goal.id AND hit.visitor = entered.visitor AND hit.at > entered.at
            AND hit.at <= entered.at + goal.days * interval '1 day' LIMIT 1) AS did ON true
      WHERE goal.site_id = $4 GROUP BY goal.id ORDER BY goal.created_at`,
    [campaignId, period.from, period.until, siteId],
  );
  return rows.map(({ id, name, days, ...counts }) => ({
    id,
    name,
    days,
    visitors: Number(counts.visitors),
    reached: Number(counts.reached),
    withheld: Number(counts.withheld),
    withheldReached: Number(counts.withheldReached),
  }));
}
