import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Visits that are kept with what must hold of them. */
export class Rehearsals1764000000014 implements MigrationInterface {
  readonly name = 'Rehearsals1764000000014';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE rehearsal (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        rehearsal jsonb NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        updated_at timestamptz NOT NULL DEFAULT now(),
        CONSTRAINT rehearsal_name UNIQUE (site_id, name)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE rehearsal;');
  }
}
