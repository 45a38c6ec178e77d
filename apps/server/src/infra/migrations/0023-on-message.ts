import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which part of a message was clicked, or written into. */
export class OnMessage1764000000023 implements MigrationInterface {
  readonly name = 'OnMessage1764000000023';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE event ADD COLUMN part text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE event DROP COLUMN part');
  }
}
