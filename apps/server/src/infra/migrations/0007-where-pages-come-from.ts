import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * A reading says where it found the pages; a site says which parameters tell its pages apart. Parts of the tag are asked
 * for by other rules than before.
 */
export class WherePagesComeFrom1764000000007 implements MigrationInterface {
  readonly name = 'WherePagesComeFrom1764000000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE page_reading ADD COLUMN sitemap text, ADD COLUMN source text;
      UPDATE site SET settings = '{"pageParameters": []}'::jsonb || settings;
      -- Made anew at the next start: they say which parts of the tag a page loads.
      DELETE FROM site_manifest;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE page_reading DROP COLUMN sitemap, DROP COLUMN source;
      UPDATE site SET settings = settings - 'pageParameters';
      DELETE FROM site_manifest;
    `);
  }
}
