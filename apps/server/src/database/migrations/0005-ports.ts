import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A mock serves each of its arrangements on a port of its own. */
export class Ports1795000000005 implements MigrationInterface {
  readonly name = 'Ports1795000000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE mocks ADD COLUMN IF NOT EXISTS ports text NOT NULL DEFAULT '[]'");
    if (await runner.hasColumn('mocks', 'port'))
      await runner.query("UPDATE mocks SET ports = CONCAT('[', port, ']')");
    await runner.query('ALTER TABLE mocks DROP COLUMN IF EXISTS port');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE mocks ADD COLUMN IF NOT EXISTS port int unsigned NOT NULL DEFAULT 0');
    if (await runner.hasColumn('mocks', 'ports'))
      await runner.query("UPDATE mocks SET port = JSON_EXTRACT(ports, '$[0]')");
    await runner.query('ALTER TABLE mocks DROP COLUMN IF EXISTS ports');
  }
}
