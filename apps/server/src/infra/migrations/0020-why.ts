import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Codes by which a visitor sees why a message does not show, and what they let the studio know of it. */
export class Why1764000000020 implements MigrationInterface {
  readonly name = 'Why1764000000020';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE why_code (
        code text PRIMARY KEY,
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        by_name text NOT NULL,
        expires_at timestamptz NOT NULL
      );
      CREATE INDEX why_code_of_campaign ON why_code (campaign_id);
      CREATE TABLE why_report (
        id uuid PRIMARY KEY,
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        code text NOT NULL,
        page text NOT NULL,
        lines jsonb NOT NULL,
        at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX why_report_of_campaign ON why_report (campaign_id, at);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE why_report; DROP TABLE why_code');
  }
}
