import type { MigrationInterface, QueryRunner } from 'typeorm';

const OPTIONS = 'ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin';

/** Designs, arrangements, mocks and their records. */
export class FirstTables1795000000001 implements MigrationInterface {
  readonly name = 'FirstTables1795000000001';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS designs (
      id char(36) NOT NULL PRIMARY KEY,
      name varchar(255) NOT NULL,
      text longtext NOT NULL,
      sound_text longtext NOT NULL,
      identities longtext NOT NULL,
      revision int unsigned NOT NULL,
      created_at datetime(3) NOT NULL,
      changed_at datetime(3) NOT NULL,
      KEY designs_by_change (changed_at, id)
    ) ${OPTIONS}`);
    await runner.query(`CREATE TABLE IF NOT EXISTS arrangements (
      design_id char(36) NOT NULL,
      name varchar(60) NOT NULL,
      PRIMARY KEY (design_id, name),
      CONSTRAINT arrangement_design FOREIGN KEY (design_id) REFERENCES designs (id) ON DELETE CASCADE
    ) ${OPTIONS}`);
    await runner.query(`CREATE TABLE IF NOT EXISTS mocks (
      id char(36) NOT NULL PRIMARY KEY,
      design_id char(36) NOT NULL,
      arrangements text NOT NULL,
      port int unsigned NOT NULL,
      running tinyint NOT NULL,
      created_at datetime(3) NOT NULL,
      KEY mocks_by_design (design_id),
      CONSTRAINT mock_design FOREIGN KEY (design_id) REFERENCES designs (id) ON DELETE CASCADE
    ) ${OPTIONS}`);
    await runner.query(`CREATE TABLE IF NOT EXISTS datasets (
      id char(36) NOT NULL PRIMARY KEY,
      seed int unsigned NOT NULL,
      counts longtext NOT NULL,
      model_text longtext NOT NULL,
      model_identities longtext NOT NULL,
      model_revision int unsigned NOT NULL,
      counters longtext NOT NULL,
      sequence bigint unsigned NOT NULL,
      holder char(36) NOT NULL,
      CONSTRAINT dataset_mock FOREIGN KEY (id) REFERENCES mocks (id) ON DELETE CASCADE
    ) ${OPTIONS}`);
    await runner.query(`CREATE TABLE IF NOT EXISTS records (
      dataset_id char(36) NOT NULL,
      rid bigint unsigned NOT NULL,
      data longtext NOT NULL,
      PRIMARY KEY (dataset_id, rid),
      CONSTRAINT record_dataset FOREIGN KEY (dataset_id) REFERENCES datasets (id) ON DELETE CASCADE
    ) ${OPTIONS}`);
    await runner.query(`CREATE TABLE IF NOT EXISTS facts (
      name varchar(60) NOT NULL PRIMARY KEY,
      value varchar(255) NOT NULL
    ) ${OPTIONS}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['facts', 'records', 'datasets', 'mocks', 'arrangements', 'designs']) {
      await runner.query(`DROP TABLE IF EXISTS ${table}`);
    }
  }
}
