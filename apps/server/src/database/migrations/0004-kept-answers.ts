import { randomBytes } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A secret for each mock to sign with, and the answers it keeps for requests that are sent again. */
export class KeptAnswers1795000000004 implements MigrationInterface {
  readonly name = 'KeptAnswers1795000000004';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE mocks ADD COLUMN IF NOT EXISTS secret char(43) NOT NULL DEFAULT ''");
    const mocks = (await runner.query("SELECT id FROM mocks WHERE secret = ''")) as { readonly id: string }[];
    for (const { id } of mocks)
      await runner.query('UPDATE mocks SET secret = ? WHERE id = ?', [
        randomBytes(32).toString('base64url'),
        id,
      ]);
    await runner.query(`CREATE TABLE IF NOT EXISTS kept_answers (
      dataset_id char(36) NOT NULL,
      id char(16) NOT NULL,
      kept_at bigint unsigned NOT NULL,
      data longtext NOT NULL,
      PRIMARY KEY (dataset_id, id),
      CONSTRAINT kept_answer_dataset FOREIGN KEY (dataset_id) REFERENCES datasets (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS kept_answers');
    await runner.query('ALTER TABLE mocks DROP COLUMN IF EXISTS secret');
  }
}
