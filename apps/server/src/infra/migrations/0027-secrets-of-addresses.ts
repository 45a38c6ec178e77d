import type { MigrationInterface, QueryRunner } from 'typeorm';

/** With which of the installation's secrets an address was hashed: without it nobody knows the address again. */
export class SecretsOfAddresses1764000000027 implements MigrationInterface {
  readonly name = 'SecretsOfAddresses1764000000027';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE do_not_write ADD COLUMN made_with text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE do_not_write DROP COLUMN made_with');
  }
}
