import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What Results of a site ask of many days of all its campaigns is read from the index alone. */
export class DaysAtHand1764000000037 implements MigrationInterface {
  readonly name = 'DaysAtHand1764000000037';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE INDEX campaign_day_counts ON campaign_day (campaign_id, day)
        INCLUDE (shown, clicked, closed, closed_soon, converted);
      CREATE INDEX last_day_counts ON last_day (campaign_id, day)
        INCLUDE (shown, viewable, clicked, answering, converted, held);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX campaign_day_counts, last_day_counts');
  }
}
