import type { Experiment } from '@velarium/contract';
import { dayAfter } from '@velarium/core';
import type { EntityManager } from 'typeorm';

/** An experiment as it is kept. */
export interface ExperimentRow {
  readonly id: string;
  readonly campaignId: string;
  readonly arms: readonly { readonly id: string; readonly weight: number }[];
  /** A hash of what is tried. */
  readonly tried: string;
  readonly visitorsASide: number | null;
  readonly smallest: number;
  readonly goal: Experiment['goal'];
  readonly windowHours: number;
  readonly startedAt: Date;
  readonly endedAt: Date | null;
  readonly ended: Experiment['ended'];
  readonly adopted: string | null;
  /** Those that ended before they were counted do not say who was left out. */
  readonly found: (Omit<Found, 'undivided' | 'robots'> & Partial<Found>) | null;
}

type Found = Pick<Experiment, 'days' | 'entered' | 'undivided' | 'robots'>;

/** Whoever answered or followed the message first did so at. */
const CONVERTED = `SELECT visitor, min(first_at) AS at FROM visitor_day
  WHERE campaign_id = $1 AND kind = 'converted' AND first_at >= $2 GROUP BY visitor`;
/** Whoever reached the goal after they had entered first did so at: what they did before belongs to no variant. */
const REACHED = `SELECT hit.visitor, min(hit.at) AS at FROM goal_reached hit JOIN entered ON entered.visitor = hit.visitor
  WHERE hit.goal_id = $5 AND hit.at > entered.first_at GROUP BY hit.visitor`;

/**
 * How an experiment stood by the end of each of the site's days. A visitor enters once, with their first showing in it, and
 * counts when their window has closed: whatever they do later belongs to nobody's rate. Who met the campaign without having been
 * divided first enters no more.
 */
export async function experimentDays(
  manager: EntityManager,
  { campaignId, arms, goal, windowHours, startedAt }: ExperimentRow,
  timeZone: string,
): Promise<Found> {
  const rows: { day: string; variant: string; visitors: string; converters: string }[] = await manager.query(
    `WITH entered AS (
       SELECT DISTINCT ON (visitor) visitor, variant, first_at FROM visitor_day
        WHERE campaign_id = $1 AND kind = 'shown' AND first_at >= $2 ORDER BY visitor, first_at),
     converted AS (${goal ? REACHED : CONVERTED})
     SELECT CASE WHEN first_at + $3 * interval '1 hour' <= now()
                 THEN to_char((first_at + $3 * interval '1 hour') AT TIME ZONE $4, 'YYYY-MM-DD') ELSE '' END AS day,
            variant, count(*) AS visitors,
            count(*) FILTER (WHERE converted.at <= first_at + $3 * interval '1 hour') AS converters
       FROM entered LEFT JOIN converted USING (visitor) GROUP BY 1, 2 ORDER BY 1`,
    [campaignId, startedAt, windowHours, timeZone, ...(goal ? [goal.id] : [])],
  );
  const closed = rows.filter(({ day }) => day !== '');
  const counts = new Map(arms.map(({ id }) => [id, { visitors: 0, converters: 0 }]));
  const days: Experiment['days'] = [];
  const last = closed.at(-1)?.day;
  for (
    let day = closed[0]?.day;
    day !== undefined && last !== undefined && day <= last;
    day = dayAfter(day, 1)
  ) {
    for (const row of closed.filter((one) => one.day === day)) {
      const arm = counts.get(row.variant);
      if (!arm) continue;
      arm.visitors += Number(row.visitors);
      arm.converters += Number(row.converters);
    }
    days.push({
      day,
      arms: arms.map((arm) => ({ ...arm, ...(counts.get(arm.id) ?? { visitors: 0, converters: 0 }) })),
    });
  }
  const among = (isDivided: boolean) =>
    rows
      .filter(({ variant }) => counts.has(variant) === isDivided)
      .reduce((sum, { visitors }) => sum + Number(visitors), 0);
  const [unseen]: { showings: number }[] = await manager.query(
    `SELECT coalesce(sum(showings), 0)::integer AS showings FROM robot_day
      WHERE campaign_id = $1 AND site_id = (SELECT site_id FROM campaign WHERE id = $1)
        AND day >= ($2::timestamptz AT TIME ZONE 'UTC')::date`,
    [campaignId, startedAt],
  );
  return { days, entered: among(true), undivided: among(false), robots: unseen?.showings ?? 0 };
}
