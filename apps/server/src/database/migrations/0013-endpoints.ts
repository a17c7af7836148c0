import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a mock serves are rows of a table, each with its port, not arrays that are paired by their index. */
export class Endpoints1795000000013 implements MigrationInterface {
  readonly name = 'Endpoints1795000000013';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE IF NOT EXISTS mock_endpoints (
      mock_id char(36) NOT NULL,
      kind varchar(20) NOT NULL,
      name varchar(60) NOT NULL,
      position int unsigned NOT NULL,
      port int unsigned NOT NULL,
      PRIMARY KEY (mock_id, kind, name),
      CONSTRAINT endpoint_mock FOREIGN KEY (mock_id) REFERENCES mocks (id) ON DELETE CASCADE
    ) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_bin`);
    // One statement takes all arrays away, so that what was done before is done again until then.
    if (await runner.hasColumn('mocks', 'ports'))
      await runner.query(`INSERT IGNORE INTO mock_endpoints (mock_id, kind, name, position, port)
        SELECT id, kind, name, position, COALESCE(JSON_VALUE(ports, CONCAT('$[', position, ']')), 0) FROM (
          SELECT id, ports, 'arrangement' AS kind, named.name, named.place - 1 AS position
            FROM mocks, JSON_TABLE(arrangements, '$[*]'
              COLUMNS (place FOR ORDINALITY, name varchar(60) PATH '$')) AS named
          UNION ALL
          SELECT id, ports, 'release', named.name, JSON_LENGTH(arrangements) + named.place - 1
            FROM mocks, JSON_TABLE(releases, '$[*]'
              COLUMNS (place FOR ORDINALITY, name varchar(60) PATH '$')) AS named
        ) AS served`);
    await runner.query(
      'ALTER TABLE mocks DROP COLUMN IF EXISTS arrangements, DROP COLUMN IF EXISTS releases, DROP COLUMN IF EXISTS ports',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE mocks
      ADD COLUMN IF NOT EXISTS arrangements text NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS releases text NOT NULL DEFAULT '[]',
      ADD COLUMN IF NOT EXISTS ports text NOT NULL DEFAULT '[]'`);
    if (!(await runner.hasTable('mock_endpoints'))) return;
    const namesOf = (kind: string): string =>
      `COALESCE((SELECT JSON_ARRAYAGG(name ORDER BY position) FROM mock_endpoints WHERE mock_id = id AND kind = '${kind}'), '[]')`;
    await runner.query(`UPDATE mocks SET
      arrangements = ${namesOf('arrangement')},
      releases = ${namesOf('release')},
      ports = COALESCE((SELECT JSON_ARRAYAGG(port ORDER BY position) FROM mock_endpoints WHERE mock_id = id), '[]')`);
    await runner.query('DROP TABLE mock_endpoints');
  }
}
