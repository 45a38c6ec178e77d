import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What an experiment is for, where that is a goal of the site. */
export class TrialGoals1764000000021 implements MigrationInterface {
  readonly name = 'TrialGoals1764000000021';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      -- Its id, its name and its days when the experiment began; null where the message's own answer or click counts.
      ALTER TABLE experiment ADD COLUMN goal jsonb;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE experiment DROP COLUMN goal');
  }
}
