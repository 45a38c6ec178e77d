import type { CampaignGoals, CampaignParts, Goal, SaveGoal, Stretch } from '@velarium/contract';
import type { DataSource, EntityManager } from 'typeorm';
import type { CampaignService } from '../campaigns/index.ts';
import { notFound, ProblemError } from '../infra/problem.ts';
import type { Reads } from '../infra/reader.ts';
import { countEvents } from '../results/index.ts';
import type { SiteService } from '../sites/index.ts';

/** More would only be noise beside each other: chance alone calls one in twenty. */
const MOST = 20;

interface GoalServices {
  readonly db: DataSource;
  readonly sites: SiteService;
  readonly campaigns: CampaignService;
}

export function createGoalService({ db, sites, campaigns }: GoalServices) {
  return {
    async list(workspaceId: string, siteId: string): Promise<Goal[]> {
      await sites.get(workspaceId, siteId);
      await countEvents(db);
      const rows: (Omit<Goal, 'createdAt'> & { createdAt: Date })[] = await db.query(
        `SELECT goal.id, name, deed, counts, days, created_at AS "createdAt",
                (SELECT count(DISTINCT visitor)::integer FROM goal_reached
                  WHERE goal_id = goal.id AND at > now() - interval '28 days') AS reached
           FROM goal WHERE site_id = $1 ORDER BY created_at, name`,
        [siteId],
      );
      return rows.map((row) => ({ ...row, createdAt: row.createdAt.toISOString() }));
    },

    /** Makes a goal, or changes all of one but its deed: what it counts stays, or its numbers would mix two things. */
    async save(
      workspaceId: string,
      siteId: string,
      { name, deed, counts, days }: SaveGoal,
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
                'UPDATE goal SET name = $3, counts = $4, days = $5 WHERE id = $1 AND site_id = $2 RETURNING id',
                [id, siteId, name, counts, days],
              )
            )[0]
          : await db.query(
              'INSERT INTO goal (site_id, name, deed, counts, days) VALUES ($1, $2, $3, $4, $5) RETURNING id',
              [siteId, name, JSON.stringify(deed), counts, days],
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
      const aimed: { name: string }[] = await db.query(
        `SELECT campaign.name FROM experiment JOIN campaign ON campaign.id = campaign_id
          WHERE ended_at IS NULL AND goal ->> 'id' = $1 AND campaign.site_id = $2 ORDER BY campaign.name`,
        [id, siteId],
      );
      if (aimed.length > 0)
        throw new ProblemError(
          409,
          'in-use',
          'An experiment is for this goal',
          `End it first, or nobody would count: ${aimed.map(({ name }) => name).join(', ')}.`,
        );
      const [, removed]: [unknown, number] = await db.query(
        'DELETE FROM goal WHERE id = $1 AND site_id = $2',
        [id, siteId],
      );
      if (removed === 0) throw notFound('goal');
      await db.query(
        'UPDATE campaign SET goals = array_remove(goals, $1) WHERE site_id = $2 AND $1 = ANY(goals)',
        [id, siteId],
      );
    },

    async chosenFor(workspaceId: string, campaignId: string): Promise<CampaignGoals> {
      await campaigns.siteOf(workspaceId, campaignId);
      const [row]: [CampaignGoals] = await db.query('SELECT goals FROM campaign WHERE id = $1', [campaignId]);
      return row;
    },

    /** Says which goals of the site a campaign is measured by; those of other sites are none. */
    async choose(
      workspaceId: string,
      campaignId: string,
      { goals: chosen }: CampaignGoals,
    ): Promise<CampaignGoals> {
      const siteId = await campaigns.siteOf(workspaceId, campaignId);
      const known: { id: string }[] = await db.query('SELECT id FROM goal WHERE site_id = $1', [siteId]);
      if (chosen?.some((id) => !known.some((goal) => goal.id === id))) throw notFound('goal');
      await db.query('UPDATE campaign SET goals = $2 WHERE id = $1', [campaignId, chosen]);
      return { goals: chosen };
    },
  };
}
export type GoalService = ReturnType<typeof createGoalService>;

/** What the manifest of a site must know of its goals. */
export const goalDeeds = (manager: EntityManager, siteId: string): Promise<Pick<Goal, 'id' | 'deed'>[]> =>
  manager.query('SELECT id, deed FROM goal WHERE site_id = $1 ORDER BY created_at', [siteId]);

/**
 * How many reached each goal chosen for a campaign within its days after they first met a campaign in a stretch, and how many of those
 * from whom it was withheld. Counted from when a goal was made: before, nobody could be seen to reach it.
 */
export async function readGoals(
  reads: Reads,
  {
    campaignId,
    siteId,
    period,
  }: { readonly campaignId: string; readonly siteId: string; readonly period: Stretch },
): Promise<CampaignParts['goals']> {
  const rows: (Pick<CampaignParts['goals'][number], 'id' | 'name' | 'days' | 'counts'> &
    Record<'visitors' | 'reached' | 'withheld' | 'withheldReached' | 'times' | 'withheldTimes', string> & {
      hasWorth: boolean;
      worth: string | null;
      withheldWorth: string | null;
    })[] = await reads.query(
    `WITH entered AS (
       SELECT visitor, min(first_at) AS at, bool_or(kind = 'shown') AS is_shown FROM visitor_day
        WHERE campaign_id = $1 AND kind IN ('shown', 'held') AND day BETWEEN $2 AND $3
          -- Beside those it was withheld from, only who was divided as they were can be compared.
          AND (kind = 'held' OR variant <> '' OR NOT EXISTS (
            SELECT FROM visitor_day held WHERE held.campaign_id = $1 AND held.kind = 'held' AND held.day BETWEEN $2 AND $3))
        GROUP BY visitor),
     measured AS (
       SELECT goal.* FROM goal JOIN campaign ON campaign.id = $1 AND (goals IS NULL OR goal.id = ANY(goals))
        WHERE goal.site_id = $4),
     hits AS (
       SELECT goal.id AS goal_id, visitor, is_shown, hit.worth, goal.counts,
              row_number() OVER (PARTITION BY goal.id, visitor ORDER BY hit.at) AS nth
         FROM measured goal JOIN goal_reached hit ON hit.goal_id = goal.id JOIN entered USING (visitor)
        WHERE entered.at >= goal.created_at AND hit.at > entered.at
          AND hit.at <= entered.at + goal.days * interval '1 day'),
     reached AS (
       SELECT goal_id, is_shown, count(DISTINCT visitor) AS visitors, count(*) AS times, sum(worth) AS worth FROM hits
        -- Only the first where it counts once.
        WHERE counts = 'each' OR nth = 1 GROUP BY goal_id, is_shown),
     came AS (
       SELECT measured.id AS goal_id, count(*) FILTER (WHERE is_shown) AS visitors,
              count(*) FILTER (WHERE NOT is_shown) AS withheld
         FROM measured JOIN entered ON entered.at >= measured.created_at GROUP BY measured.id)
     SELECT goal.id, goal.name, goal.days, goal.counts,
            coalesce(goal.deed -> 'worth', 'null') <> 'null' AS "hasWorth", came.visitors, came.withheld,
            coalesce(shown.visitors, 0) AS reached, coalesce(held.visitors, 0) AS "withheldReached",
            coalesce(shown.times, 0) AS times, coalesce(held.times, 0) AS "withheldTimes",
            shown.worth AS worth, held.worth AS "withheldWorth"
       FROM measured goal JOIN came ON came.goal_id = goal.id
       LEFT JOIN reached shown ON shown.goal_id = goal.id AND shown.is_shown
       LEFT JOIN reached held ON held.goal_id = goal.id AND NOT held.is_shown
      ORDER BY goal.created_at, goal.name`,
    [campaignId, period.from, period.until, siteId],
  );
  return rows.map(({ id, name, days, counts, hasWorth, ...sums }) => ({
    id,
    name,
    days,
    counts,
    visitors: Number(sums.visitors),
    reached: Number(sums.reached),
    withheld: Number(sums.withheld),
    withheldReached: Number(sums.withheldReached),
    times: Number(sums.times),
    withheldTimes: Number(sums.withheldTimes),
    worth: hasWorth ? Number(sums.worth ?? 0) : null,
    withheldWorth: hasWorth ? Number(sums.withheldWorth ?? 0) : null,
  }));
}
