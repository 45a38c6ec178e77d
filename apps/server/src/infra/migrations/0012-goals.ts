import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Goals of a site, and who reached them when: also somebody from whom a message was withheld can. */
export class Goals1764000000012 implements MigrationInterface {
  readonly name = 'Goals1764000000012';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE goal (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        deed jsonb NOT NULL,
        days integer NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        CONSTRAINT goal_name UNIQUE (site_id, name)
      );
      CREATE TABLE goal_reached (
        goal_id uuid NOT NULL REFERENCES goal ON DELETE CASCADE,
        visitor uuid NOT NULL,
        at timestamptz NOT NULL,
        PRIMARY KEY (goal_id, visitor, at)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE goal_reached; DROP TABLE goal;');
  }
}
