import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A showing says in which of its languages a message was. */
export class LanguageOfAShowing1764000000032 implements MigrationInterface {
  readonly name = 'LanguageOfAShowing1764000000032';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE event ADD COLUMN language text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE event DROP COLUMN language');
  }
}
