import { execFile } from 'node:child_process';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from '@jest/globals';
import { readSql, type CountedKind } from '@isomeros/core/intake';
import { createSchema, dropSchema, runSql } from './support/database.js';

const folder = join(import.meta.dirname, '../../../packages/core/test/intake/habits');
const files = readdirSync(folder).filter((file) => file.endsWith('.mariadb.sql'));

const made: string[] = [];
afterAll(async () => {
  for (const address of made) await dropSchema(address);
});

/** Runs a script as its own client does, which knows delimiters. */
function runScript(address: string, script: string): Promise<void> {
  const { hostname, port, username, password, pathname } = new URL(address);
  const parts = [`--host=${hostname}`, `--port=${port}`, `--user=${decodeURIComponent(username)}`];
  return new Promise((resolve, reject) => {
    const child = execFile(
      'mariadb',
      [...parts, '--protocol=tcp', '--skip-ssl', pathname.slice(1)],
      { env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) } },
      (error) => (error === null ? resolve() : reject(new Error(error.message))),
    );
    child.stdin?.end(script);
  });
}

/** How many of each the server says there are. What it adds by itself is passed over, as listed in each query. */
const QUERIES: Readonly<Record<Exclude<CountedKind, 'definitions' | 'members' | 'records'>, string>> = {
  tables:
    "SELECT COUNT(*) AS count FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE'",
  columns:
    "SELECT COUNT(*) AS count FROM information_schema.COLUMNS JOIN information_schema.TABLES USING (TABLE_SCHEMA, TABLE_NAME) WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE'",
  keys: "SELECT COUNT(*) AS count FROM information_schema.TABLE_CONSTRAINTS WHERE TABLE_SCHEMA = DATABASE() AND CONSTRAINT_TYPE = 'PRIMARY KEY'",
  'foreign keys':
    "SELECT COUNT(*) AS count FROM information_schema.TABLE_CONSTRAINTS WHERE TABLE_SCHEMA = DATABASE() AND CONSTRAINT_TYPE = 'FOREIGN KEY'",
  'unique rules':
    "SELECT COUNT(*) AS count FROM information_schema.TABLE_CONSTRAINTS WHERE TABLE_SCHEMA = DATABASE() AND CONSTRAINT_TYPE = 'UNIQUE'",
  // Of every column of JSON it checks that it is JSON.
  checks:
    "SELECT COUNT(*) AS count FROM information_schema.CHECK_CONSTRAINTS WHERE CONSTRAINT_SCHEMA = DATABASE() AND CHECK_CLAUSE NOT LIKE 'json\\_valid(%'",
  // A column that may be null is null by default, whether that is said or not.
  defaults:
    "SELECT COUNT(*) AS count FROM information_schema.COLUMNS JOIN information_schema.TABLES USING (TABLE_SCHEMA, TABLE_NAME) WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE' AND COLUMN_DEFAULT IS NOT NULL AND COLUMN_DEFAULT <> 'NULL'",
};

/** How many rows all tables have together. */
async function rowsIn(address: string): Promise<number> {
  const tables = await runSql(
    address,
    "SELECT TABLE_NAME AS name FROM information_schema.TABLES WHERE TABLE_SCHEMA = DATABASE() AND TABLE_TYPE = 'BASE TABLE'",
  );
  let sum = 0;
  for (const table of tables) {
    const [row] = await runSql(address, `SELECT COUNT(*) AS count FROM \`${String(table['name'])}\``);
    sum += Number(row?.['count']);
  }
  return sum;
}

describe('what is counted of a source', () => {
  test.each(files)('%s is what the server has of the same DDL', async (file) => {
    const script = readFileSync(join(folder, file), 'utf8');
    const address = await createSchema('counts');
    made.push(address);
    await runScript(address, script);
    const counted = new Map(readSql(script, 'Counted').counts.map(({ kind, found }) => [kind, found]));
    const kinds = Object.keys(QUERIES) as (keyof typeof QUERIES)[];
    const told: [CountedKind, number][] = [];
    for (const kind of kinds) {
      const [row] = await runSql(address, QUERIES[kind]);
      told.push([kind, Number(row?.['count'])]);
    }
    expect(kinds.map((kind) => [kind, counted.get(kind) ?? 0])).toEqual(told);
    expect(counted.get('records') ?? 0).toBe(await rowsIn(address));
  });
});
