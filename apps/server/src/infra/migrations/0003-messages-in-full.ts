import type { MigrationInterface, QueryRunner } from 'typeorm';

type Json = Record<string, unknown>;

/** What a message of the second make said without words. */
const PLAIN_STYLE = { all: {}, tablet: {}, mobile: {} };
const ENTER = { kind: 'drift', from: 'bottom', distance: 14, ms: 220, delayMs: 0, easing: 'soft' };
const PLAIN: Json = {
  look: null,
  darkens: false,
  close: {
    place: 'inside',
    corner: 'end',
    sign: 'cross',
    word: 'Close',
    picture: null,
    size: 36,
    colour: 'ink',
    hoverColour: 'ink',
    ground: null,
    delaySeconds: 0,
    onHover: false,
    means: 'later',
    afterSeconds: null,
  },
  motion: { enter: ENTER, leave: { ...ENTER, kind: 'fade', ms: 140, easing: 'even' } },
  backdropCloses: true,
  holdsPage: false,
  pushesPage: false,
  isSticky: true,
};
const MORE: Readonly<Record<string, Json>> = {
  text: { marks: 'none' },
  button: { tone: 'main', attention: 'none' },
  form: { asksSum: false },
};

function rewriteMessage({ width, ...message }: Json): Json {
  const isSized = message.format !== 'bar' && message.format !== 'fullscreen';
  return {
    ...PLAIN,
    ...message,
    style: isSized ? { ...PLAIN_STYLE, all: { width: { unit: 'px', value: width } } } : PLAIN_STYLE,
    steps: (message.steps as Json[]).map((step) => ({
      ...step,
      blocks: (step.blocks as Json[]).map((block) => ({
        style: PLAIN_STYLE,
        ...MORE[block.kind as string],
        ...block,
      })),
    })),
  };
}

/** Messages with style, close, motion and many blocks; Looks, pictures, saved blocks and templates of a site. */
export class MessagesInFull1764000000003 implements MigrationInterface {
  readonly name = 'MessagesInFull1764000000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE look (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        is_default boolean NOT NULL,
        style jsonb NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now(),
        CONSTRAINT look_name UNIQUE (site_id, name)
      );
      CREATE UNIQUE INDEX look_default ON look (site_id) WHERE is_default;
      CREATE TABLE picture (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        alt text NOT NULL,
        width integer NOT NULL,
        height integer NOT NULL,
        widths integer[] NOT NULL,
        weight integer NOT NULL,
        created_at timestamptz NOT NULL DEFAULT now()
      );
      CREATE INDEX picture_of_site ON picture (site_id, created_at);
      CREATE TABLE picture_file (
        picture_id uuid NOT NULL REFERENCES picture ON DELETE CASCADE,
        width integer NOT NULL,
        type text NOT NULL,
        bytes bytea NOT NULL,
        PRIMARY KEY (picture_id, width, type)
      );
      CREATE TABLE attachment (
        id uuid PRIMARY KEY,
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        lead_id uuid NOT NULL REFERENCES lead ON DELETE CASCADE,
        bytes bytea NOT NULL
      );
      CREATE INDEX attachment_of_lead ON attachment (lead_id);
      CREATE TABLE presence (
        campaign_id uuid NOT NULL REFERENCES campaign ON DELETE CASCADE,
        account_id uuid NOT NULL REFERENCES account ON DELETE CASCADE,
        seen_at timestamptz NOT NULL DEFAULT now(),
        PRIMARY KEY (campaign_id, account_id)
      );
      CREATE TABLE saved_block (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        block jsonb NOT NULL,
        CONSTRAINT saved_block_name UNIQUE (site_id, name)
      );
      CREATE TABLE own_template (
        id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
        site_id uuid NOT NULL REFERENCES site ON DELETE CASCADE,
        name text NOT NULL,
        message jsonb NOT NULL,
        CONSTRAINT own_template_name UNIQUE (site_id, name)
      );
    `);
    for (const [table, key, column] of [
      ['campaign', 'id', 'draft'],
      ['campaign_revision', 'campaign_id, revision', 'draft'],
      ['campaign_version', 'campaign_id, version', 'document'],
    ] as const) {
      const rows: Json[] = await runner.query(`SELECT ${key}, ${column} AS document FROM ${table}`);
      const keys = key.split(', ');
      for (const row of rows) {
        const document = row.document as Json;
        const variants = (document.variants as Json[]).map((variant) => ({
          ...variant,
          message: rewriteMessage(variant.message as Json),
        }));
        const rewritten = { ...document, variants, message: rewriteMessage(document.message as Json) };
        await runner.query(
          `UPDATE ${table} SET ${column} = $1 WHERE ${keys.map((one, n) => `${one} = $${n + 2}`).join(' AND ')}`,
          [JSON.stringify(rewritten), ...keys.map((one) => row[one])],
        );
      }
    }
    // Both are of an older make, and are made anew.
    await runner.query('DELETE FROM site_manifest; DELETE FROM message_file;');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE presence; DROP TABLE attachment; DROP TABLE own_template; DROP TABLE saved_block; DROP TABLE picture_file; DROP TABLE picture; DROP TABLE look;
      DELETE FROM site_manifest; DELETE FROM message_file;
    `);
  }
}
