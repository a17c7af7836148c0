import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The exchanges of mocks, in segments, and those that are pinned. */
export class Journals1796100000016 implements MigrationInterface {
  readonly name = 'Journals1796100000016';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS journal_segments (
      mock_id char(36) NOT NULL,
      first_number bigint unsigned NOT NULL,
      last_number bigint unsigned NOT NULL,
      exchanges int unsigned NOT NULL,
      bytes int unsigned NOT NULL,
      summaries longblob NOT NULL,
      bodies longblob NOT NULL,
      PRIMARY KEY (mock_id, first_number),
      CONSTRAINT journal_segment_mock FOREIGN KEY (mock_id) REFERENCES mocks (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
    await runner.query(`CREATE TABLE IF NOT EXISTS pinned_exchanges (
      mock_id char(36) NOT NULL,
      exchange_number bigint unsigned NOT NULL,
      exchange longblob NOT NULL,
      PRIMARY KEY (mock_id, exchange_number),
      CONSTRAINT pinned_exchange_mock FOREIGN KEY (mock_id) REFERENCES mocks (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS pinned_exchanges');
    await runner.query('DROP TABLE IF EXISTS journal_segments');
  }
}
