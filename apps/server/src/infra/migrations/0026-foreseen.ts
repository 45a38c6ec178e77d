import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What was foreseen of a launch, to be held against what came. */
export class Foreseen1764000000026 implements MigrationInterface {
  readonly name = 'Foreseen1764000000026';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE campaign_version ADD COLUMN forecast jsonb; ALTER TABLE planned_launch ADD COLUMN forecast jsonb',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE campaign_version DROP COLUMN forecast; ALTER TABLE planned_launch DROP COLUMN forecast',
    );
  }
}
