import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * The path a page is counted under, kept with its event where it is more than a path: on sites whose pages are told apart by
 * parameters or fragments. What came before is counted by its path alone.
 */
export class CountedPath1764000000036 implements MigrationInterface {
  readonly name = 'CountedPath1764000000036';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE event ADD COLUMN counted_path text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE event DROP COLUMN counted_path');
  }
}
