import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When each rehearsal last held, and against what: one row for all that held against the same. */
export class HeldCasts1764000000024 implements MigrationInterface {
  readonly name = 'HeldCasts1764000000024';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE held_cast (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        hash text NOT NULL,
        state jsonb NOT NULL,
        PRIMARY KEY (site_id, hash)
      );
      ALTER TABLE rehearsal ADD COLUMN held_at timestamptz, ADD COLUMN held_cast text;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE rehearsal DROP COLUMN held_at, DROP COLUMN held_cast; DROP TABLE held_cast',
    );
  }
}
