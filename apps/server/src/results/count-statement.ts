import { MET_ON_A_DAY } from '@velarium/contract/values';
import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import { byKind, COUNTED, VISITED } from './counted-kinds.ts';
import { eventPath } from './event-path.ts';

/** A message closed sooner was not read: seconds. */
const SOON_SECONDS = 2;

/** Which bar of the visit line a value falls in. */
const bar = (value: string, edges: readonly number[]) =>
  `width_bucket(${value}, ARRAY[${edges.join(',')}]::smallint[]) - 1`;

const adds = (columns: readonly string[]) =>
  columns.map((column) => `${column} = old.${column} + excluded.${column}`).join(', ');
const OF_VISITORS = VISITED.map((kind) => `'${kind}'`).join(', ');

/** How visitors were when they first met a campaign on a day: what results tell them apart by. */
const FIRST = ['device', 'page', 'source', 'country', 'language', 'is_new', 'written', 'cause', 'version'];
/** What events tell of it: the path a page is counted under is made out for the first of them alone. */
const TOLD = [...FIRST, 'counted_path'];
/** How each is kept, out of what the first of the events tells. */
const KEPT = FIRST.map((fact) =>
  fact === 'page' ? `CASE WHEN page IS NOT NULL THEN ${eventPath('firsts')} END` : fact,
);

/**
 * Counts the events of transactions from $1 to before $2, none older than $3, into days of their sites' own. Rows are touched
 * in one order. Whoever converted has met the campaign, also when the news of the showing never came.
 *
 * For who was met on a new day the chain of their days is read as it was and as it is: what changed between neighbours is
 * what changes in `reach_day` and `last_day`, also when news come late and split a link. What this very statement writes
 * is not seen in it: `visitor_day` is read as it was before.
 */
export const COUNT = `
  WITH fresh AS (
    SELECT campaign_id, e.site_id, e.kind, e.visitor, coalesce(e.variant, '') AS variant, e.at,
           e.at AT TIME ZONE site.time_zone AS local, e.seconds, e.depth, e.closed_by, e.part,
           e.device, e.page, e.counted_path, e.language AS written, e.cause, e.version,
           nullif(visit.referrer, '') AS source, visit.country, visit.number = 1 AS is_new,
           nullif(split_part(visit.languages, ',', 1), '') AS language
      FROM event e JOIN campaign ON campaign.id = e.campaign_id JOIN site ON site.id = e.site_id
      -- Not looked for where nothing of it is told apart.
      LEFT JOIN visit ON visit.site_id = e.site_id
                     AND visit.session = CASE WHEN e.kind IN ('shown', 'converted') THEN e.session END
     WHERE e.tx >= $1 AND e.tx < $2 AND e.at >= $3 AND e.campaign_id IS NOT NULL),
  counted AS (
    SELECT campaign_id, site_id, kind, visitor, variant, at, local, local::date AS day, 1 AS events,
           ${TOLD.map((fact) => `CASE WHEN kind = 'shown' THEN ${fact} END AS ${fact}`).join(', ')}
      FROM fresh
    UNION ALL SELECT campaign_id, site_id, 'shown', visitor, variant, at, local, local::date, 0, ${TOLD.join(', ')}
      FROM fresh WHERE kind = 'converted'
    UNION ALL SELECT campaign_id, site_id, 'closed_soon', visitor, variant, at, local, local::date, 1,
                     ${TOLD.map(() => 'NULL').join(', ')}
      FROM fresh WHERE kind = 'closed' AND seconds < ${SOON_SECONDS}),
  -- The first of a day, and of one instant a showing before what it led to.
  firsts AS (
    SELECT DISTINCT ON (campaign_id, kind, visitor, day) campaign_id, site_id, kind, visitor, day, at AS first_at,
           sum(events) OVER one AS events, min(variant) OVER one AS variant, ${TOLD.join(', ')}
      FROM counted
    WINDOW one AS (PARTITION BY campaign_id, kind, visitor, day ORDER BY at, counted.events DESC
                   ROWS BETWEEN UNBOUNDED PRECEDING AND UNBOUNDED FOLLOWING)
     ORDER BY campaign_id, kind, visitor, day, at, counted.events DESC),
  days AS (
    INSERT INTO visitor_day AS old (campaign_id, kind, visitor, day, first_at, events, variant, ${FIRST.join(', ')})
    SELECT campaign_id, kind, visitor, day, first_at, events, variant, ${KEPT.join(', ')}
      FROM firsts ORDER BY campaign_id, kind, visitor, day
    ON CONFLICT (campaign_id, kind, visitor, day) DO UPDATE
      SET events = old.events + excluded.events, first_at = least(old.first_at, excluded.first_at),
          ${FIRST.map(
            (fact) =>
              `${fact} = CASE WHEN excluded.first_at < old.first_at THEN excluded.${fact} ELSE old.${fact} END`,
          ).join(', ')}
    RETURNING campaign_id, kind, visitor, day, xmax = 0 AS is_new),
  chain AS (
    SELECT campaign_id, kind, visitor, day, true AS is_new FROM days WHERE is_new AND kind IN (${OF_VISITORS})
    UNION ALL
    SELECT campaign_id, kind, visitor, old.day, false
      FROM (SELECT DISTINCT campaign_id, kind, visitor FROM days WHERE is_new AND kind IN (${OF_VISITORS})) AS met
      JOIN visitor_day old USING (campaign_id, kind, visitor)),
  links AS (
    SELECT campaign_id, kind, day, coalesce(lag(day) OVER one, '-infinity') AS before, 1 AS change
      FROM chain WINDOW one AS (PARTITION BY campaign_id, kind, visitor ORDER BY day)
    UNION ALL
    SELECT campaign_id, kind, day, coalesce(lag(day) OVER one, '-infinity'), -1
      FROM chain WHERE NOT is_new WINDOW one AS (PARTITION BY campaign_id, kind, visitor ORDER BY day)),
  reached AS (
    INSERT INTO reach_day AS old (campaign_id, day, before, ${VISITED.join(', ')})
    SELECT campaign_id, day, before, ${byKind(VISITED, 'change')}
      FROM (SELECT campaign_id, kind, day, before, sum(change) AS change FROM links
             GROUP BY campaign_id, kind, day, before HAVING sum(change) <> 0) AS changed
     GROUP BY campaign_id, day, before ORDER BY campaign_id, day, before
    ON CONFLICT (campaign_id, day, before) DO UPDATE SET ${adds(VISITED)}),
  -- A link that begins on a day is of somebody who came again after it.
  last_seen AS (
    INSERT INTO last_day AS old (campaign_id, day, ${VISITED.join(', ')})
    SELECT campaign_id, day, ${byKind(VISITED, 'change')}
      FROM (SELECT campaign_id, kind, ends.day, sum(ends.change) AS change
              FROM links, LATERAL (VALUES (links.day, links.change), (before, -links.change)) AS ends (day, change)
             WHERE ends.day > '-infinity' GROUP BY campaign_id, kind, ends.day HAVING sum(ends.change) <> 0) AS changed
     GROUP BY campaign_id, day ORDER BY campaign_id, day
    ON CONFLICT (campaign_id, day) DO UPDATE SET ${adds(VISITED)}),
  met AS (
    SELECT site_id, visitor, day, sum(events) AS more FROM firsts WHERE kind = 'shown'
     GROUP BY site_id, visitor, day HAVING sum(events) > 0),
  had_met AS (
    SELECT met.site_id, met.visitor, met.day, more, coalesce(sum(old.events), 0) AS had
      FROM met LEFT JOIN (visitor_day old JOIN campaign ON campaign.id = old.campaign_id)
        ON old.visitor = met.visitor AND old.day = met.day AND old.kind = 'shown' AND campaign.site_id = met.site_id
     GROUP BY met.site_id, met.visitor, met.day, more),
  met_on AS (
    INSERT INTO met_day AS old (site_id, day, messages, visitors)
    SELECT site_id, day, least(messages, ${MET_ON_A_DAY}), sum(change)
      FROM had_met, LATERAL (VALUES (had + more, 1), (had, -1)) AS part (messages, change)
     WHERE messages > 0
     GROUP BY site_id, day, least(messages, ${MET_ON_A_DAY}) HAVING sum(change) <> 0
     ORDER BY site_id, day, least(messages, ${MET_ON_A_DAY})
    ON CONFLICT (site_id, day, messages) DO UPDATE SET visitors = old.visitors + excluded.visitors),
  opened AS (
    INSERT INTO opened_day AS old (campaign_id, day, of, bucket, events)
    SELECT campaign_id, day, of, bucket, count(*)
      FROM (SELECT campaign_id, local::date AS day, 'seconds' AS of, ${bar('seconds', STAY_SECONDS)} AS bucket
              FROM fresh WHERE kind = 'shown' AND seconds IS NOT NULL
            UNION ALL SELECT campaign_id, local::date, 'depth', ${bar('depth', STAY_DEPTHS)}
              FROM fresh WHERE kind = 'shown' AND depth IS NOT NULL) AS bars
     GROUP BY campaign_id, day, of, bucket ORDER BY campaign_id, day, of, bucket
    ON CONFLICT (campaign_id, day, of, bucket) DO UPDATE SET events = old.events + excluded.events),
  closed AS (
    INSERT INTO closed_day AS old (campaign_id, day, way, bucket, events)
    SELECT campaign_id, local::date AS day, closed_by, coalesce(${bar('seconds', STAY_SECONDS)}, -1) AS bucket, count(*)
      FROM fresh WHERE kind = 'closed' AND closed_by IS NOT NULL
     GROUP BY 1, 2, 3, 4 ORDER BY campaign_id, day, closed_by, bucket
    ON CONFLICT (campaign_id, day, way, bucket) DO UPDATE SET events = old.events + excluded.events),
  touched AS (
    INSERT INTO touched_day AS old (campaign_id, kind, day, visitor, part, variant, last_at)
    SELECT campaign_id, kind, local::date AS day, visitor, part, variant, max(at)
      FROM fresh WHERE kind IN ('clicked', 'answering') AND part IS NOT NULL
     GROUP BY 1, 2, 3, 4, 5, 6 ORDER BY campaign_id, kind, day, visitor, part, variant
    ON CONFLICT (campaign_id, kind, day, visitor, part, variant) DO UPDATE
      SET last_at = greatest(old.last_at, excluded.last_at)),
  shared AS (
    INSERT INTO shared_way AS old (campaign_id, way, events)
    SELECT campaign_id, part, count(*) FROM fresh WHERE kind = 'shared' AND part IS NOT NULL
     GROUP BY campaign_id, part ORDER BY campaign_id, part
    ON CONFLICT (campaign_id, way) DO UPDATE SET events = old.events + excluded.events),
  hours AS (
    SELECT campaign_id, day, extract(hour FROM local) AS hour, ${byKind(COUNTED, 'events')} FROM counted
     GROUP BY campaign_id, day, extract(hour FROM local)),
  by_day AS (
    INSERT INTO campaign_day AS old (campaign_id, day, ${COUNTED.join(', ')})
    SELECT campaign_id, day, ${COUNTED.map((kind) => `sum(${kind})`).join(', ')} FROM hours
     GROUP BY campaign_id, day ORDER BY campaign_id, day
    ON CONFLICT (campaign_id, day) DO UPDATE SET ${adds(COUNTED)})
  INSERT INTO campaign_hour AS old (campaign_id, day, hour, ${COUNTED.join(', ')})
  SELECT campaign_id, day, hour, ${COUNTED.join(', ')} FROM hours ORDER BY campaign_id, day, hour
  ON CONFLICT (campaign_id, day, hour) DO UPDATE SET ${adds(COUNTED)}`;
