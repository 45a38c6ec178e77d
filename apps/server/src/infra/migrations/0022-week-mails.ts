import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who has a site's week mailed to them. */
export class WeekMails1764000000022 implements MigrationInterface {
  readonly name = 'WeekMails1764000000022';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE week_mail (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        account_id uuid NOT NULL REFERENCES account ON DELETE CASCADE,
        PRIMARY KEY (site_id, account_id)
      )
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE week_mail');
  }
}
