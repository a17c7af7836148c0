import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Releases that mocks serve, and what is said about their end. */
export class ServedReleases1795000000010 implements MigrationInterface {
  readonly name = 'ServedReleases1795000000010';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE mocks ADD COLUMN IF NOT EXISTS releases text NOT NULL DEFAULT '[]' AFTER arrangements",
    );
    await runner.query(`ALTER TABLE releases
      ADD COLUMN IF NOT EXISTS deprecated_at datetime(3) NULL,
      ADD COLUMN IF NOT EXISTS sunset_at datetime(3) NULL,
      ADD COLUMN IF NOT EXISTS successor text NULL`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE releases DROP COLUMN IF EXISTS successor, DROP COLUMN IF EXISTS sunset_at, DROP COLUMN IF EXISTS deprecated_at',
    );
    await runner.query('ALTER TABLE mocks DROP COLUMN IF EXISTS releases');
  }
}
