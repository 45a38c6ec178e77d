import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What rules and sites have learned to say since the foundation, page groups, cap epochs and variants of events. */
export class RulesInFull1764000000002 implements MigrationInterface {
  readonly name = 'RulesInFull1764000000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE page_group (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        rules jsonb NOT NULL,
        CONSTRAINT page_group_name UNIQUE (site_id, name)
      );
      ALTER TABLE campaign ADD COLUMN cap_epoch integer NOT NULL DEFAULT 0;
      ALTER TABLE event ADD COLUMN variant text;
      -- A file's name follows from its message.
      ALTER TABLE campaign_version DROP COLUMN message_hash;
      UPDATE site SET settings = '{"privacy": {"memory": "assumed", "honoursSignal": true}, "hashRoutes": false,
                                   "sharedDomain": null}'::jsonb || settings;
    `);
    for (const [table, column] of [
      ['campaign', 'draft'],
      ['campaign_revision', 'draft'],
      ['campaign_version', 'document'],
    ]) {
      // What was not said before meant this.
      await runner.query(`
        UPDATE ${table} SET ${column} = jsonb_set(jsonb_set('{"variants": []}'::jsonb || ${column},
          '{rule,limits}', '{"afterNo": "none", "priority": 5, "withoutMemory": "whenUncapped", "holdout": 0}'::jsonb
                           || (${column} #> '{rule,limits}')),
          '{rule,reach,pages}', '{"follows": null}'::jsonb || (${column} #> '{rule,reach,pages}'));
      `);
    }
    // Message files of versions published before have no sheet, and manifests are of an older make: both are made anew.
    await runner.query('DELETE FROM site_manifest; DELETE FROM message_file;');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE page_group;
      ALTER TABLE campaign DROP COLUMN cap_epoch;
      ALTER TABLE event DROP COLUMN variant;
      ALTER TABLE campaign_version ADD COLUMN message_hash text NOT NULL DEFAULT '';
      DELETE FROM site_manifest;
    `);
  }
}
