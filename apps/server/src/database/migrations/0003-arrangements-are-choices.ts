import { CHOICES_FORMAT, upgradeChoices } from '@isomeros/core/arrangement';
import type { Json, JsonObject } from '@isomeros/core/model';
import type { MigrationInterface, QueryRunner } from 'typeorm';

interface NamedRow {
  readonly id: string;
  readonly name: string;
}

/** Arrangements stand among what was decided about a design, and have no table of their own. */
export class ArrangementsAreChoices1795000000003 implements MigrationInterface {
  readonly name = 'ArrangementsAreChoices1795000000003';

  async up(runner: QueryRunner): Promise<void> {
    if (!(await runner.hasTable('arrangements'))) return;
    // Its last statement takes the table away, so that what was done before is done again until then.
    const named = (await runner.query(
      'SELECT design_id AS id, name FROM arrangements ORDER BY name',
    )) as NamedRow[];
    const designs = (await runner.query('SELECT id, choices FROM designs')) as {
      readonly id: string;
      readonly choices: string;
    }[];
    for (const { id, choices } of designs) {
      const names = named.filter((row) => row.id === id).map(({ name }) => name);
      const upgraded = JSON.stringify(
        CHOICES_FORMAT.stamp(upgradeChoices(JSON.parse(choices) as Json, undefined, names) as JsonObject),
      );
      await runner.query('UPDATE designs SET choices = ? WHERE id = ?', [upgraded, id]);
    }
    await runner.query('DROP TABLE arrangements');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS arrangements (
      design_id char(36) NOT NULL,
      name varchar(60) NOT NULL,
      PRIMARY KEY (design_id, name),
      CONSTRAINT arrangement_design FOREIGN KEY (design_id) REFERENCES designs (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
    await runner.query("INSERT IGNORE INTO arrangements (design_id, name) SELECT id, 'main' FROM designs");
  }
}
