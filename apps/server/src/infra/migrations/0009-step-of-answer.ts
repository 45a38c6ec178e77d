import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which step of its message a form stood on, so that answers can be looked for by it. */
export class StepOfAnswer1764000000009 implements MigrationInterface {
  readonly name = 'StepOfAnswer1764000000009';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE lead ADD COLUMN step text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE lead DROP COLUMN step');
  }
}
