import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Whether anything is to be counted is known without looking through days of events: each statement that stores some moves a
 * mark, and what is counted says how far it has seen it.
 *
 * An index over days serves only who asks for days. A database that has not looked at its table yet takes any index for as good as
 * any other, and counting read all visitors of a campaign for each of them.
 */
export class CountingAtHand1764000000034 implements MigrationInterface {
  readonly name = 'CountingAtHand1764000000034';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE SEQUENCE event_mark;
      SELECT nextval('event_mark');
      ALTER TABLE counted_until ADD COLUMN mark bigint NOT NULL DEFAULT 0;
      CREATE FUNCTION move_event_mark() RETURNS trigger LANGUAGE plpgsql AS
        'BEGIN PERFORM nextval(''event_mark''); RETURN NULL; END';
      CREATE TRIGGER event_stored AFTER INSERT ON event FOR EACH STATEMENT EXECUTE FUNCTION move_event_mark();
      DROP INDEX visitor_day_by_day;
      CREATE INDEX visitor_day_by_day ON visitor_day (campaign_id, kind, day) WHERE day > '-infinity'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TRIGGER event_stored ON event;
      DROP FUNCTION move_event_mark();
      ALTER TABLE counted_until DROP COLUMN mark;
      DROP SEQUENCE event_mark;
      DROP INDEX visitor_day_by_day;
      CREATE INDEX visitor_day_by_day ON visitor_day (campaign_id, kind, day)`);
  }
}
