import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Since when sign-ins of an account hold: what began before it was signed out everywhere does not, whenever it is written down. */
export class SignedOutAt1764000000035 implements MigrationInterface {
  readonly name = 'SignedOutAt1764000000035';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE account ADD COLUMN signed_out_at timestamptz');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE account DROP COLUMN signed_out_at');
  }
}
