import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Letters of sites, and what of them messages load. */
export class Letters1764000000029 implements MigrationInterface {
  readonly name = 'Letters1764000000029';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE letters (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        -- A hash of the file.
        id text NOT NULL,
        name text NOT NULL,
        -- By which a sheet asks for them.
        family text NOT NULL,
        kind text NOT NULL,
        lightest smallint NOT NULL,
        heaviest smallint NOT NULL,
        licence text NOT NULL,
        -- By the team; what was found on a page is for the studio to show, and the page loads it itself.
        is_brought boolean NOT NULL,
        file bytea NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        -- What a team has brought may be what a page loads too.
        PRIMARY KEY (site_id, id, is_brought)
      );
      CREATE TABLE letter_file (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        -- Of the letters, and of the text that it was made for.
        hash text NOT NULL,
        bytes bytea NOT NULL,
        made_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (site_id, hash)
      );
      CREATE INDEX letter_file_hash ON letter_file (hash);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE letter_file; DROP TABLE letters');
  }
}
