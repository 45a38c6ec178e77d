import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A workspace can ask that a second person agrees before anything is launched. */
export class SecondPerson1764000000025 implements MigrationInterface {
  readonly name = 'SecondPerson1764000000025';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE workspace ADD COLUMN asks_second boolean NOT NULL DEFAULT false;
      ALTER TABLE campaign_move DROP CONSTRAINT campaign_move_what_check, ADD CONSTRAINT campaign_move_what_check
        CHECK (what IN ('published', 'rested', 'resumed', 'asked', 'declined'));
      -- Without a time it is launched as soon as somebody agrees.
      ALTER TABLE planned_launch ALTER COLUMN at DROP NOT NULL, ADD COLUMN awaits boolean NOT NULL DEFAULT false;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DELETE FROM planned_launch WHERE awaits OR at IS NULL;
      DELETE FROM campaign_move WHERE what IN ('asked', 'declined');
      ALTER TABLE campaign_move DROP CONSTRAINT campaign_move_what_check, ADD CONSTRAINT campaign_move_what_check
        CHECK (what IN ('published', 'rested', 'resumed'));
      ALTER TABLE planned_launch DROP COLUMN awaits, ALTER COLUMN at SET NOT NULL;
      ALTER TABLE workspace DROP COLUMN asks_second;
    `);
  }
}
