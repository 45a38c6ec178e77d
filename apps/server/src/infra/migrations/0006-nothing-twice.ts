import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Events count once whenever they come; whoever converted counts as a visitor; how long a page view lasted is kept by
 * page view; answers name the message file they answer; the files of earlier releases of the tag stay.
 */
export class NothingTwice1764000000006 implements MigrationInterface {
  readonly name = 'NothingTwice1764000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      -- Events whose own time was not believed, by their ids alone; see decision 0016.
      CREATE TABLE late_event (
        id uuid PRIMARY KEY,
        at timestamptz NOT NULL
      );
      CREATE TABLE page_stay (
        -- No foreign key, as in event.
        site_id uuid NOT NULL,
        view uuid NOT NULL,
        path text NOT NULL,
        device text NOT NULL,
        day date NOT NULL,
        seconds smallint NOT NULL,
        depth smallint NOT NULL,
        seconds_before smallint,
        depth_before smallint,
        PRIMARY KEY (site_id, view)
      ) WITH (fillfactor = 85);
      CREATE INDEX page_stay_by_day ON page_stay (day);
      ALTER TABLE event DROP COLUMN seconds_before, DROP COLUMN depth_before, ADD COLUMN view uuid;
      -- What a forged correction has taken away.
      UPDATE stay_day SET visits = 0 WHERE visits < 0;

      WITH missing AS (
        INSERT INTO campaign_visitor (campaign_id, kind, visitor, first_at)
        SELECT campaign_id, 'shown', visitor, first_at FROM campaign_visitor WHERE kind = 'converted'
        ON CONFLICT DO NOTHING RETURNING campaign_id, first_at)
      INSERT INTO campaign_hour (campaign_id, hour, kind, events, first_visitors)
      SELECT campaign_id, date_trunc('hour', first_at, 'UTC'), 'shown', 0, count(*) FROM missing GROUP BY 1, 2
      ON CONFLICT (campaign_id, hour, kind) DO UPDATE
        SET first_visitors = campaign_hour.first_visitors + excluded.first_visitors;

      ALTER TABLE lead ADD COLUMN message_hash text;
      -- How visitors are divided between a campaign's messages, so that a new division moves as few as it must.
      ALTER TABLE campaign ADD COLUMN allotment jsonb;
      -- Which files a campaign's messages have been: an answer is checked against the one the visitor had.
      CREATE TABLE campaign_message (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        version integer NOT NULL,
        variant text NOT NULL,
        hash text NOT NULL,
        first_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (campaign_id, version, variant, hash)
      );
      CREATE INDEX membership_by_account ON membership (account_id, created_at);
      CREATE TABLE tag_file (
        name text PRIMARY KEY,
        body text NOT NULL,
        released_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE TABLE page_reading (
        site_id uuid PRIMARY KEY REFERENCES site ON DELETE CASCADE,
        id uuid NOT NULL,
        state text NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'stopped', 'failed')),
        found integer NOT NULL DEFAULT 0,
        read integer NOT NULL DEFAULT 0,
        unread integer NOT NULL DEFAULT 0,
        fault text,
        is_stop_wanted boolean NOT NULL DEFAULT false,
        updated_at timestamptz NOT NULL DEFAULT now()
      );
      -- Made anew at the next start: sheets say that nothing is printed.
      DELETE FROM site_manifest;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE page_reading; DROP TABLE tag_file; DROP TABLE campaign_message; DROP TABLE page_stay; DROP TABLE late_event;
      DROP INDEX membership_by_account;
      ALTER TABLE campaign DROP COLUMN allotment;
      ALTER TABLE lead DROP COLUMN message_hash;
      ALTER TABLE event DROP COLUMN view, ADD COLUMN seconds_before smallint, ADD COLUMN depth_before smallint;
    `);
  }
}
