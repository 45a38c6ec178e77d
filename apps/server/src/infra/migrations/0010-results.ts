import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Results of any period: events are counted behind the door, in the order of their transactions, into days of the site's
 * own; who met what on which day, and when they had met it before. See decision 0026.
 */
export class Results1764000000010 implements MigrationInterface {
  readonly name = 'Results1764000000010';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE event
        -- The transaction that brought it: what has been counted is told apart by it.
        ADD COLUMN tx bigint NOT NULL DEFAULT pg_current_xact_id()::text::bigint,
        -- What opened a message.
        ADD COLUMN cause text;
      CREATE INDEX event_tx ON event USING brin (tx) WITH (pages_per_range = 16);
      CREATE TABLE counted_until (
        is_one boolean PRIMARY KEY DEFAULT true CHECK (is_one),
        -- Of all transactions before this one the events are counted.
        tx bigint NOT NULL,
        -- None that is not counted happened before.
        since timestamptz NOT NULL
      );
      INSERT INTO counted_until (tx, since) VALUES (0, '-infinity');
      DROP TABLE campaign_visitor; DROP TABLE campaign_hour;
      CREATE TABLE visitor_day (
        -- No foreign key, as in event: it would be checked row by row.
        campaign_id uuid NOT NULL,
        kind text NOT NULL,
        visitor uuid NOT NULL,
        day date NOT NULL,
        first_at timestamptz NOT NULL,
        events integer NOT NULL,
        variant text NOT NULL,
        PRIMARY KEY (campaign_id, kind, visitor, day)
      );
      CREATE INDEX visitor_day_by_day ON visitor_day (campaign_id, kind, day);
      -- How many visitors of a day were last seen before on which day; never, where that is before all days.
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
      -- What was done with a campaign, so that it can be read beside what visitors did.
      CREATE TABLE campaign_move (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        at timestamptz NOT NULL DEFAULT now(),
        what text NOT NULL CHECK (what IN ('published', 'rested', 'resumed')),
        version integer,
        by_name text NOT NULL
      );
      CREATE INDEX campaign_move_of ON campaign_move (campaign_id, at);
      INSERT INTO campaign_move (campaign_id, at, what, version, by_name)
      SELECT campaign_id, published_at, 'published', version, coalesce(a.name, '')
        FROM campaign_version LEFT JOIN account a ON a.id = published_by;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE campaign_move, campaign_hour, campaign_day, reach_day, visitor_day, counted_until;
      DROP INDEX event_tx;
      ALTER TABLE event DROP COLUMN tx, DROP COLUMN cause;
      CREATE TABLE campaign_visitor (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        kind text NOT NULL,
        visitor uuid NOT NULL,
        first_at timestamptz NOT NULL,
        PRIMARY KEY (campaign_id, kind, visitor)
      );
      CREATE TABLE campaign_hour (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        hour timestamptz NOT NULL,
        kind text NOT NULL,
        events bigint NOT NULL,
        first_visitors bigint NOT NULL,
        PRIMARY KEY (campaign_id, hour, kind)
      );
    `);
  }
}
