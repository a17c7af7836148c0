import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Contracts frozen under a label. */
export class Releases1795000000008 implements MigrationInterface {
  readonly name = 'Releases1795000000008';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS releases (
      design_id char(36) NOT NULL,
      label varchar(60) NOT NULL,
      number int unsigned NOT NULL,
      arrangement varchar(60) NOT NULL,
      version varchar(60) NOT NULL,
      revision int unsigned NOT NULL,
      operations int unsigned NOT NULL,
      made_at datetime(3) NOT NULL,
      contract longblob NOT NULL,
      PRIMARY KEY (design_id, label),
      UNIQUE KEY release_number (design_id, number),
      CONSTRAINT release_design FOREIGN KEY (design_id) REFERENCES designs (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS releases');
  }
}
