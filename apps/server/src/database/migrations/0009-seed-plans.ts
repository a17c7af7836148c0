import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is wanted of seed records is more than how many. */
export class SeedPlans1795000000009 implements MigrationInterface {
  readonly name = 'SeedPlans1795000000009';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE datasets CHANGE COLUMN IF EXISTS counts seed_plan longtext NOT NULL');
    await runner.query(
      `UPDATE datasets SET seed_plan = CONCAT('{"counts":', seed_plan, ',"children":{},"shares":{}}')
       WHERE NOT JSON_EXISTS(seed_plan, '$.counts')`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    if (!(await runner.hasColumn('datasets', 'seed_plan'))) return;
    await runner.query(
      `UPDATE datasets SET seed_plan = JSON_EXTRACT(seed_plan, '$.counts') WHERE JSON_EXISTS(seed_plan, '$.counts')`,
    );
    await runner.query('ALTER TABLE datasets CHANGE COLUMN IF EXISTS seed_plan counts longtext NOT NULL');
  }
}
