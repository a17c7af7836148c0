import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Releases that mocks serve, and what is said about their end. */
export class ServedReleases1795000000010 implements MigrationInterface {
  readonly name = 'ServedReleases1795000000010';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE mocks ADD releases text NOT NULL DEFAULT '[]' AFTER arrangements");
    await runner.query(`ALTER TABLE releases
      ADD deprecated_at datetime(3) NULL,
      ADD sunset_at datetime(3) NULL,
      ADD successor text NULL`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE releases DROP successor, DROP sunset_at, DROP deprecated_at');
    await runner.query('ALTER TABLE mocks DROP releases');
  }
}
