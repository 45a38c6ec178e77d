import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a team notes down about the days of a site's year, and where its season is given out. */
export class Season1764000000018 implements MigrationInterface {
  readonly name = 'Season1764000000018';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE season_note (
        id uuid PRIMARY KEY,
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        first_day date NOT NULL,
        last_day date NOT NULL,
        text text NOT NULL,
        source text NOT NULL
      );
      CREATE INDEX season_note_of_site ON season_note (site_id, first_day);
      -- The secret part of the address at which a site's calendar is read.
      CREATE TABLE season_address (
        site_id uuid PRIMARY KEY REFERENCES site ON DELETE CASCADE,
        token text NOT NULL UNIQUE
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE season_address; DROP TABLE season_note');
  }
}
