import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What goes wrong on purpose at a mock. */
export class Trouble1795000000007 implements MigrationInterface {
  readonly name = 'Trouble1795000000007';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE mocks ADD COLUMN IF NOT EXISTS trouble text NOT NULL DEFAULT '{}'");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE mocks DROP COLUMN IF EXISTS trouble');
  }
}
