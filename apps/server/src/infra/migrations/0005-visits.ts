import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Visits with what is known of them, for reckoning how many people an audience would hold. */
export class Visits1764000000005 implements MigrationInterface {
  readonly name = 'Visits1764000000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE visit (
        -- No foreign key, as in event: it would be checked row by row, and old rows go by themselves.
        site_id uuid NOT NULL,
        session uuid NOT NULL,
        visitor uuid NOT NULL,
        started_at timestamptz NOT NULL,
        views integer NOT NULL,
        number integer,
        landing text,
        referrer text,
        country text,
        languages text,
        browser text,
        system text,
        signed_in boolean,
        basket_items double precision,
        basket_total double precision,
        attributes jsonb,
        PRIMARY KEY (site_id, session)
      ) WITH (fillfactor = 85);
      CREATE INDEX visit_by_visitor ON visit (site_id, visitor);
      CREATE INDEX visit_by_age ON visit (started_at);
      UPDATE site SET settings = '{"recordedFacts": null}'::jsonb || settings;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE visit;
      UPDATE site SET settings = settings - 'recordedFacts';
    `);
  }
}
