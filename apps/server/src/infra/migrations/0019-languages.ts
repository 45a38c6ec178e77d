import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Messages in several languages, and answers with the language they were asked in. */
export class Languages1764000000019 implements MigrationInterface {
  readonly name = 'Languages1764000000019';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      -- Empty for the language a message was written in.
      ALTER TABLE campaign_message ADD COLUMN language text NOT NULL DEFAULT '';
      ALTER TABLE lead ADD COLUMN language text;
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DELETE FROM campaign_message WHERE language <> '';
      ALTER TABLE campaign_message DROP COLUMN language;
      ALTER TABLE lead DROP COLUMN language;
    `);
  }
}
