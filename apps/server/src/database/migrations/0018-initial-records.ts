import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The records that mocks of a design begin with, and which mocks do. */
export class InitialRecords1796200000018 implements MigrationInterface {
  readonly name = 'InitialRecords1796200000018';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS initial_records (
      design_id char(36) NOT NULL,
      kept_at datetime(3) NOT NULL,
      records int unsigned NOT NULL,
      types longtext NOT NULL,
      model longtext NOT NULL,
      compressed_rows longblob NOT NULL,
      PRIMARY KEY (design_id),
      CONSTRAINT initial_records_design FOREIGN KEY (design_id) REFERENCES designs (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
    await runner.query(
      'ALTER TABLE datasets ADD COLUMN IF NOT EXISTS begins_initial tinyint(1) NOT NULL DEFAULT 0',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS initial_records');
    await runner.query('ALTER TABLE datasets DROP COLUMN IF EXISTS begins_initial');
  }
}
