import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How long visits last and how far they go; how often pages are seen; where a page of the catalogue comes from. */
export class StayAndViews1764000000004 implements MigrationInterface {
  readonly name = 'StayAndViews1764000000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE event
        ADD COLUMN seconds smallint, ADD COLUMN depth smallint,
        ADD COLUMN seconds_before smallint, ADD COLUMN depth_before smallint;
      CREATE TABLE page_day (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        path text NOT NULL,
        day date NOT NULL,
        views bigint NOT NULL,
        PRIMARY KEY (site_id, day, path)
      );
      CREATE TABLE stay_day (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        path text NOT NULL,
        day date NOT NULL,
        device text NOT NULL,
        of text NOT NULL CHECK (of IN ('seconds', 'depth')),
        bucket smallint NOT NULL,
        visits bigint NOT NULL,
        PRIMARY KEY (site_id, day, path, device, of, bucket)
      );
      ALTER TABLE campaign ADD COLUMN labels text[] NOT NULL DEFAULT '{}';
      ALTER TABLE site_page ADD COLUMN source text NOT NULL DEFAULT 'sitemap'
        CHECK (source IN ('sitemap', 'hand', 'file'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE campaign DROP COLUMN labels;
      ALTER TABLE site_page DROP COLUMN source;
      DROP TABLE stay_day; DROP TABLE page_day;
      ALTER TABLE event DROP COLUMN seconds, DROP COLUMN depth, DROP COLUMN seconds_before, DROP COLUMN depth_before;
    `);
  }
}
