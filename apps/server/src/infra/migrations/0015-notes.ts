import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a team writes down about a campaign for itself. */
export class Notes1764000000015 implements MigrationInterface {
  readonly name = 'Notes1764000000015';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE campaign ADD COLUMN note text NOT NULL DEFAULT ''");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE campaign DROP COLUMN note');
  }
}
