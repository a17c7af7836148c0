import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Which of several versions answers requests that name none. */
export class Unversioned1796100000017 implements MigrationInterface {
  readonly name = 'Unversioned1796100000017';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE mock_endpoints ADD COLUMN IF NOT EXISTS unversioned tinyint(1) NOT NULL DEFAULT 0',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE mock_endpoints DROP COLUMN IF EXISTS unversioned');
  }
}
