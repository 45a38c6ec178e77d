import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Why a campaign was moved, and launches that are planned for later. */
export class History1764000000016 implements MigrationInterface {
  readonly name = 'History1764000000016';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE campaign_move ADD COLUMN note text NOT NULL DEFAULT '';
      CREATE TABLE planned_launch (
        campaign_id uuid PRIMARY KEY REFERENCES campaign ON DELETE CASCADE,
        -- Told apart from a plan that took its place.
        id uuid NOT NULL,
        at timestamptz NOT NULL,
        -- The draft as it was: what is edited later does not slip in.
        document jsonb NOT NULL,
        revision integer NOT NULL,
        note text NOT NULL,
        by_account uuid REFERENCES account ON DELETE SET NULL,
        by_name text NOT NULL,
        failure text NOT NULL DEFAULT ''
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE planned_launch; ALTER TABLE campaign_move DROP COLUMN note');
  }
}
