import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A key reads answers and people, or what becomes of the kept rehearsals. */
export class KeysThatRehearse1764000000031 implements MigrationInterface {
  readonly name = 'KeysThatRehearse1764000000031';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE access_token ADD COLUMN reads text NOT NULL DEFAULT 'people' CHECK (reads IN ('people', 'rehearsals'))",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    // One that reads no people must not read them from now on.
    await runner.query(
      "DELETE FROM access_token WHERE reads <> 'people'; ALTER TABLE access_token DROP COLUMN reads",
    );
  }
}
