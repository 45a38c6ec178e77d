import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What pages call themselves, which manifest they run, and what they look like in a browser. */
export class Heard1764000000017 implements MigrationInterface {
  readonly name = 'Heard1764000000017';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE page_title (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        path text NOT NULL,
        title text NOT NULL,
        -- Whoever's page said it first. A title may say who somebody is: until a second says the same, it is not shown.
        visitor text NOT NULL,
        is_shared boolean NOT NULL DEFAULT false,
        at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (site_id, path, title)
      );
      CREATE TABLE manifest_day (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        day date NOT NULL,
        -- Calls that told of a page view, and those of them whose page ran a manifest long replaced.
        calls integer NOT NULL,
        outdated integer NOT NULL,
        -- When the oldest of those was made.
        oldest timestamptz,
        PRIMARY KEY (site_id, day)
      );
      CREATE TABLE page_sight (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        path text NOT NULL,
        -- Where it was seen, whole.
        address text NOT NULL,
        html text NOT NULL,
        -- Links to addresses behind a #.
        routes integer NOT NULL,
        at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (site_id, path)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE page_sight; DROP TABLE manifest_day; DROP TABLE page_title');
  }
}
