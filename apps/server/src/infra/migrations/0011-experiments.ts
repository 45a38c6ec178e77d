import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Experiments: begun with the publish that divides visitors, ended by a person, kept with what was found. */
export class Experiments1764000000011 implements MigrationInterface {
  readonly name = 'Experiments1764000000011';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE experiment (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        -- Variants with their weights, the present one first.
        arms jsonb NOT NULL,
        -- A hash of the messages and moments that are tried: others are another experiment.
        tried text NOT NULL,
        visitors_a_side integer,
        smallest double precision NOT NULL,
        window_hours integer NOT NULL,
        started_at timestamptz NOT NULL DEFAULT now(),
        ended_at timestamptz,
        ended text CHECK (ended IN ('adopted', 'stopped', 'changed')),
        adopted text,
        -- What was found when it ended, whatever becomes of the events.
        found jsonb
      );
      CREATE UNIQUE INDEX experiment_running ON experiment (campaign_id) WHERE ended_at IS NULL;
      CREATE INDEX experiment_of ON experiment (campaign_id, started_at DESC);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE experiment');
  }
}
