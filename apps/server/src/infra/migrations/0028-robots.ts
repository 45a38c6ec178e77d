import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How often robots were shown what nobody counts. */
export class Robots1764000000028 implements MigrationInterface {
  readonly name = 'Robots1764000000028';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE robot_day (
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        day date NOT NULL,
        showings integer NOT NULL,
        PRIMARY KEY (site_id, campaign_id, day)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE robot_day');
  }
}
