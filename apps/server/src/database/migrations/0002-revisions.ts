import type { MigrationInterface, QueryRunner } from 'typeorm';

const NO_CHOICES = '{"settings":{},"answered":[]}';
const NO_LOOSE_ENDS = '{"gone":[],"fresh":[]}';

/** What was decided about a design, its revisions, and removal that can be undone. */
export class Revisions1795000000002 implements MigrationInterface {
  readonly name = 'Revisions1795000000002';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE designs
      ADD COLUMN IF NOT EXISTS choices longtext NOT NULL DEFAULT '${NO_CHOICES}',
      ADD COLUMN IF NOT EXISTS loose_ends longtext NOT NULL DEFAULT '${NO_LOOSE_ENDS}',
      ADD COLUMN IF NOT EXISTS removed_at datetime(3) NULL`);
    await runner.query(
      `ALTER TABLE datasets ADD COLUMN IF NOT EXISTS model_choices longtext NOT NULL DEFAULT '${NO_CHOICES}'`,
    );
    await runner.query(`CREATE TABLE IF NOT EXISTS revisions (
      design_id char(36) NOT NULL,
      number int unsigned NOT NULL,
      at datetime(3) NOT NULL,
      what varchar(20) NOT NULL,
      sound tinyint NOT NULL,
      lines_added int unsigned NOT NULL,
      lines_removed int unsigned NOT NULL,
      state longblob NOT NULL,
      PRIMARY KEY (design_id, number),
      CONSTRAINT revision_design FOREIGN KEY (design_id) REFERENCES designs (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE IF EXISTS revisions');
    await runner.query('ALTER TABLE datasets DROP COLUMN IF EXISTS model_choices');
    await runner.query(
      'ALTER TABLE designs DROP COLUMN IF EXISTS choices, DROP COLUMN IF EXISTS loose_ends, DROP COLUMN IF EXISTS removed_at',
    );
  }
}
