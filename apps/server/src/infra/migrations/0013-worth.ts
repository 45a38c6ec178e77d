import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Goals that an event of the page reaches, what they are worth, and which of them a campaign is measured by. */
export class Worth1764000000013 implements MigrationInterface {
  readonly name = 'Worth1764000000013';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      -- No foreign key to the goal, as for campaigns: it would be checked row by row.
      ALTER TABLE event ADD COLUMN goal uuid, ADD COLUMN worth numeric(16, 2);
      ALTER TABLE goal ADD COLUMN counts text NOT NULL DEFAULT 'once' CHECK (counts IN ('once', 'each'));
      ALTER TABLE goal_reached ADD COLUMN worth numeric(16, 2);
      -- All of its site's where it says nothing.
      ALTER TABLE campaign ADD COLUMN goals uuid[];
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE event DROP COLUMN goal, DROP COLUMN worth;
      ALTER TABLE goal DROP COLUMN counts;
      ALTER TABLE goal_reached DROP COLUMN worth;
      ALTER TABLE campaign DROP COLUMN goals;
    `);
  }
}
