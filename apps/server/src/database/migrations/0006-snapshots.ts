import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Records of a mock as they were at a moment, under a name. */
export class Snapshots1795000000006 implements MigrationInterface {
  readonly name = 'Snapshots1795000000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS snapshots (
      dataset_id char(36) NOT NULL,
      name varchar(60) NOT NULL,
      taken_at datetime(3) NOT NULL,
      records int unsigned NOT NULL,
      state longblob NOT NULL,
      PRIMARY KEY (dataset_id, name),
      CONSTRAINT snapshot_dataset FOREIGN KEY (dataset_id) REFERENCES datasets (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS snapshots');
  }
}
