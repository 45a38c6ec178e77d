import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Several launches can wait for a second person as one. */
export class AskedTogether1764000000030 implements MigrationInterface {
  readonly name = 'AskedTogether1764000000030';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      -- Of those that are launched in one moment, or not at all.
      ALTER TABLE planned_launch ADD COLUMN together uuid;
      CREATE INDEX planned_launch_together ON planned_launch (together) WHERE together IS NOT NULL;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE planned_launch DROP COLUMN together');
  }
}
