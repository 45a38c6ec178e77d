import { STAY_DEPTHS, STAY_SECONDS } from '@velarium/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';

const bucket = (column: string, edges: readonly number[]) =>
  `width_bucket(${column}, ARRAY[${edges.join(',')}]::smallint[]) - 1`;

/**
 * All that results say is read from what was counted, so that events of long ago can go: how visitors were when they first met a
 * campaign on a day, on which day they were last seen, how many messages they met, and what was done with a message. See
 * decision 0036.
 */
export class ResultsWithoutEvents1764000000033 implements MigrationInterface {
  readonly name = 'ResultsWithoutEvents1764000000033';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE site
        -- For ever where it is not said.
        ADD COLUMN events_kept_days integer,
        -- Its events of before this day are gone.
        ADD COLUMN events_gone_until date;
      ALTER TABLE visitor_day
        -- Of those who met it ('shown') alone: how they were at the first of that day.
        ADD COLUMN device text,
        ADD COLUMN page text,
        ADD COLUMN source text,
        ADD COLUMN country text,
        ADD COLUMN language text,
        ADD COLUMN is_new boolean,
        ADD COLUMN written text,
        ADD COLUMN cause text,
        ADD COLUMN version integer;
      CREATE INDEX visitor_day_met ON visitor_day (visitor, day) INCLUDE (campaign_id, events) WHERE kind = 'shown';
      CREATE INDEX visitor_day_of_day ON visitor_day (day);
      -- Visitors by the last day they are known of.
      CREATE TABLE last_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        kind text NOT NULL,
        day date NOT NULL,
        visitors bigint NOT NULL,
        PRIMARY KEY (campaign_id, kind, day)
      );
      -- Visitors of a day by how many messages of the site they met on it.
      CREATE TABLE met_day (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        day date NOT NULL,
        messages smallint NOT NULL,
        visitors bigint NOT NULL,
        PRIMARY KEY (site_id, day, messages)
      );
      -- After how many seconds and at what depth it opened.
      CREATE TABLE opened_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        of text NOT NULL CHECK (of IN ('seconds', 'depth')),
        bucket smallint NOT NULL,
        events bigint NOT NULL,
        PRIMARY KEY (campaign_id, day, of, bucket)
      );
      -- How it was closed and how soon; no bucket (-1) where that was not told.
      CREATE TABLE closed_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        way text NOT NULL,
        bucket smallint NOT NULL,
        events bigint NOT NULL,
        PRIMARY KEY (campaign_id, day, way, bucket)
      );
      -- Who clicked which block and wrote into which field.
      CREATE TABLE touched_day (
        campaign_id uuid NOT NULL,
        kind text NOT NULL CHECK (kind IN ('clicked', 'answering')),
        day date NOT NULL,
        visitor uuid NOT NULL,
        part text NOT NULL,
        variant text NOT NULL,
        last_at timestamptz NOT NULL,
        PRIMARY KEY (campaign_id, kind, day, visitor, part, variant)
      );
      CREATE INDEX touched_day_of_day ON touched_day (day);

      CREATE TEMPORARY TABLE old_event ON COMMIT DROP AS
        SELECT e.*, (e.at AT TIME ZONE site.time_zone)::date AS day
          FROM event e JOIN campaign ON campaign.id = e.campaign_id JOIN site ON site.id = e.site_id, counted_until
         WHERE e.tx < counted_until.tx;
      UPDATE visitor_day AS d
         SET device = first.device, page = split_part(split_part(first.page, '#', 1), '?', 1), source = nullif(v.referrer, ''),
             country = v.country, language = nullif(split_part(v.languages, ',', 1), ''), is_new = v.number = 1,
             written = first.language, cause = first.cause, version = first.version
        FROM (SELECT DISTINCT ON (campaign_id, visitor, day) * FROM old_event WHERE kind IN ('shown', 'converted')
               ORDER BY campaign_id, visitor, day, at, kind DESC) AS first
        LEFT JOIN visit v ON v.site_id = first.site_id AND v.session = first.session
       WHERE d.campaign_id = first.campaign_id AND d.kind = 'shown' AND d.visitor = first.visitor AND d.day = first.day;
      INSERT INTO last_day
        SELECT campaign_id, kind, day, count(*)
          FROM (SELECT campaign_id, kind, visitor, max(day) AS day FROM visitor_day GROUP BY 1, 2, 3) AS one
          JOIN campaign ON campaign.id = campaign_id GROUP BY 1, 2, 3;
      INSERT INTO met_day
        SELECT site_id, day, least(met, 5), count(*)
          FROM (SELECT site_id, visitor, day, sum(events) AS met FROM visitor_day JOIN campaign ON campaign.id = campaign_id
                 WHERE kind = 'shown' AND events > 0 GROUP BY 1, 2, 3) AS one
         GROUP BY 1, 2, 3;
      INSERT INTO opened_day
        SELECT campaign_id, day, of, bucket, count(*)
          FROM old_event, LATERAL (VALUES ('seconds', ${bucket('seconds', STAY_SECONDS)}), ('depth', ${bucket('depth', STAY_DEPTHS)}))
                            AS part (of, bucket)
         WHERE kind = 'shown' AND bucket IS NOT NULL GROUP BY 1, 2, 3, 4;
      INSERT INTO closed_day
        SELECT campaign_id, day, closed_by, coalesce(${bucket('seconds', STAY_SECONDS)}, -1), count(*)
          FROM old_event WHERE kind = 'closed' AND closed_by IS NOT NULL GROUP BY 1, 2, 3, 4;
      INSERT INTO touched_day
        SELECT campaign_id, kind, day, visitor, part, coalesce(variant, ''), max(at)
          FROM old_event WHERE kind IN ('clicked', 'answering') AND part IS NOT NULL GROUP BY 1, 2, 3, 4, 5, 6;
      DROP TABLE old_event;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE touched_day, closed_day, opened_day, met_day, last_day;
      DROP INDEX visitor_day_of_day, visitor_day_met;
      ALTER TABLE visitor_day DROP COLUMN device, DROP COLUMN page, DROP COLUMN source, DROP COLUMN country,
        DROP COLUMN language, DROP COLUMN is_new, DROP COLUMN written, DROP COLUMN cause, DROP COLUMN version;
      ALTER TABLE site DROP COLUMN events_kept_days, DROP COLUMN events_gone_until;
    `);
  }
}
