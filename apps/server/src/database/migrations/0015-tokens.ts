import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tokens that mocks hand out, each a digest with the record that it stands for. */
export class Tokens1796000000015 implements MigrationInterface {
  readonly name = 'Tokens1796000000015';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS tokens (
      number bigint unsigned NOT NULL AUTO_INCREMENT,
      dataset_id char(36) NOT NULL,
      digest char(43) NOT NULL,
      rid bigint unsigned NOT NULL,
      ends bigint unsigned NOT NULL,
      data longtext NOT NULL,
      PRIMARY KEY (number),
      UNIQUE KEY token_digest (dataset_id, digest),
      KEY token_record (dataset_id, rid),
      CONSTRAINT token_dataset FOREIGN KEY (dataset_id) REFERENCES datasets (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS tokens');
  }
}
