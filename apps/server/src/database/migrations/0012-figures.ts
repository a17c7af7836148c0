import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a design amounts to is kept with it, with the version of the derivation that found it. */
export class Figures1795000000012 implements MigrationInterface {
  readonly name = 'Figures1795000000012';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE designs ADD COLUMN IF NOT EXISTS figures longtext NULL');
    await runner.query(
      'ALTER TABLE designs ADD COLUMN IF NOT EXISTS figures_version int unsigned NOT NULL DEFAULT 0',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE designs DROP COLUMN IF EXISTS figures');
    await runner.query('ALTER TABLE designs DROP COLUMN IF EXISTS figures_version');
  }
}
