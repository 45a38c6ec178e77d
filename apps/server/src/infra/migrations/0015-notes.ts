import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Where documents name colours by the part they play. What is frozen for pages keeps the names its sheet was made with. */
const PLACES = [
  ['look', 'style'],
  ['campaign', 'draft'],
  ['campaign_revision', 'draft'],
  ['campaign_version', 'document'],
  ['saved_block', 'block'],
  ['own_template', 'message'],
] as const;
const NAMES = [
  ['onAccent', 'accentText'],
  ['onField', 'fieldText'],
] as const;

/** What a team writes down about a campaign for itself, and names of our own for two colours of a Look. */
export class Notes1764000000015 implements MigrationInterface {
  readonly name = 'Notes1764000000015';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE campaign ADD COLUMN note text NOT NULL DEFAULT ''");
    await rename(runner, NAMES);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE campaign DROP COLUMN note');
    await rename(
      runner,
      NAMES.map(([before, after]) => [after, before]),
    );
  }
}

/** Within a text a quotation mark stands behind a backslash, so only whole names and values are found. */
async function rename(runner: QueryRunner, names: readonly (readonly [string, string])[]): Promise<void> {
  for (const [table, column] of PLACES)
    for (const [before, after] of names)
      await runner.query(
        `UPDATE ${table} SET ${column} = replace(${column}::text, '"${before}"', '"${after}"')::jsonb
          WHERE strpos(${column}::text, '"${before}"') > 0`,
      );
}
