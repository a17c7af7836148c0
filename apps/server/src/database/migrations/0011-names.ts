import type { MigrationInterface, QueryRunner } from 'typeorm';

/** From, to. */
type Renamed = readonly [string, string];

const TABLES: readonly Renamed[] = [
  ['facts', 'installation_state'],
  ['kept_answers', 'idempotent_responses'],
];

const COLUMNS: readonly (readonly [table: string, ...Renamed])[] = [
  ['designs', 'sound_text', 'valid_text'],
  ['designs', 'loose_ends', 'rename_candidates'],
  ['revisions', 'sound', 'valid'],
  ['mocks', 'trouble', 'faults'],
];

/** Tables and columns are called as the code calls what they hold. */
export class Names1795000000011 implements MigrationInterface {
  readonly name = 'Names1795000000011';

  async up(runner: QueryRunner): Promise<void> {
    for (const [from, to] of TABLES) await runner.query(`RENAME TABLE IF EXISTS ${from} TO ${to}`);
    for (const [table, from, to] of COLUMNS)
      await runner.query(`ALTER TABLE ${table} RENAME COLUMN IF EXISTS ${from} TO ${to}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [from, to] of TABLES) await runner.query(`RENAME TABLE IF EXISTS ${to} TO ${from}`);
    for (const [table, from, to] of COLUMNS)
      await runner.query(`ALTER TABLE ${table} RENAME COLUMN IF EXISTS ${to} TO ${from}`);
  }
}
