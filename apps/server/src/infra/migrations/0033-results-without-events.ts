import type { MigrationInterface, QueryRunner } from 'typeorm';

const VISITED = ['shown', 'viewable', 'clicked', 'answering', 'converted', 'held'];
const COUNTED = [...VISITED, 'closed', 'closed_soon', 'refused', 'shared'];
const columns = (kinds: readonly string[]) =>
  kinds.map((kind) => `${kind} integer NOT NULL DEFAULT 0`).join(', ');

/** What is counted is counted anew from the events, which are all there still. */
const COUNT_ANEW = `
  TRUNCATE visitor_day;
  UPDATE counted_until SET tx = 0, since = '-infinity';`;

/**
 * All that results say is read from what was counted, so that events of long ago can go: how visitors were when they first met a
 * campaign on a day, on which day they were last seen, how many messages they met, and what was done with a message. See
 * decision 0036. Until now what was counted could be counted twice while much came at once.
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
      DROP TABLE campaign_day, campaign_hour, reach_day;
      -- One row says all of a day: an eighth of the rows for who asks about many days.
      CREATE TABLE campaign_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        ${columns(COUNTED)},
        PRIMARY KEY (campaign_id, day)
      );
      CREATE TABLE campaign_hour (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        hour smallint NOT NULL,
        ${columns(COUNTED)},
        PRIMARY KEY (campaign_id, day, hour)
      );
      -- How many visitors of a day were last seen before on which day; never, where that is before all days.
      CREATE TABLE reach_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        before date NOT NULL,
        ${columns(VISITED)},
        PRIMARY KEY (campaign_id, day, before)
      );
      CREATE INDEX reach_ever ON reach_day (campaign_id) INCLUDE (shown, converted) WHERE before = '-infinity';
      -- Visitors by the last day they are known of.
      CREATE TABLE last_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        ${columns(VISITED)},
        PRIMARY KEY (campaign_id, day)
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
      -- How often each way of passing a message on was used.
      CREATE TABLE shared_way (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        way text NOT NULL,
        events integer NOT NULL,
        PRIMARY KEY (campaign_id, way)
      );
      ${COUNT_ANEW}
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE shared_way, touched_day, closed_day, opened_day, met_day, last_day, reach_day, campaign_hour, campaign_day;
      DROP INDEX visitor_day_of_day, visitor_day_met;
      ALTER TABLE visitor_day DROP COLUMN device, DROP COLUMN page, DROP COLUMN source, DROP COLUMN country,
        DROP COLUMN language, DROP COLUMN is_new, DROP COLUMN written, DROP COLUMN cause, DROP COLUMN version;
      CREATE TABLE reach_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        kind text NOT NULL,
        day date NOT NULL,
        before date NOT NULL,
        visitors bigint NOT NULL,
        PRIMARY KEY (campaign_id, kind, day, before)
      );
      CREATE INDEX reach_ever ON reach_day (campaign_id, kind) INCLUDE (visitors) WHERE before = '-infinity';
      CREATE TABLE campaign_day (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        kind text NOT NULL,
        events bigint NOT NULL,
        PRIMARY KEY (campaign_id, day, kind)
      );
      CREATE TABLE campaign_hour (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        hour smallint NOT NULL,
        kind text NOT NULL,
        events bigint NOT NULL,
        PRIMARY KEY (campaign_id, day, hour, kind)
      );
      ALTER TABLE site DROP COLUMN events_kept_days, DROP COLUMN events_gone_until;
      ${COUNT_ANEW}
    `);
  }
}
