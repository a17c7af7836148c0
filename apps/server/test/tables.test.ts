import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { derive } from '@isomeros/core/derivation';
import { publicationSource } from '@isomeros/core/engine';
import type { Model } from '@isomeros/core/model';
import { publish } from '@isomeros/core/publication';
import fc from 'fast-check';
import { MAIN } from '../../../packages/core/test/support/arrangement.js';
import { anyModel, modelOf } from '../../../packages/core/test/support/models.js';
import { rounds } from '../../../packages/core/test/support/rounds.js';
import { kestrelText, toolShedText } from '../../../packages/core/test/support/samples.js';
import { createSchema, dropSchema, runSql } from './support/database.js';

const run = promisify(execFile);

const tablesOf = (model: Model, format: 'mariadb.sql' | 'postgresql.sql'): string =>
  publish(publicationSource(derive(model, MAIN), model, []), format, { mock: null });

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'isomeros-tables-'));
});
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
});

/** Whatever it prints about each of some columns of the tables it has then. */
async function inPostgres(statements: string, question: string): Promise<string> {
  const url = process.env['ISOMEROS_TEST_POSTGRES_URL'];
  if (url === undefined) throw new Error('ISOMEROS_TEST_POSTGRES_URL is not set; run npm test.');
  const file = join(folder, 'tables.sql');
  writeFileSync(
    file,
    `BEGIN;\nCREATE SCHEMA loaded;\nSET search_path = loaded;\n${statements}\n${question}\nROLLBACK;\n`,
  );
  const { stdout } = await run('psql', ['-X', '-q', '-t', '-A', '-v', 'ON_ERROR_STOP=1', '-f', file, url]);
  return stdout.trim();
}

async function inMariaDb<Row>(statements: string, question: string): Promise<readonly Row[]> {
  const schema = await createSchema('tables');
  try {
    await runSql(schema, statements);
    return (await runSql(schema, question)) as readonly Row[];
  } finally {
    await dropSchema(schema);
  }
}

const COUNT_POSTGRES = "SELECT count(*) FROM information_schema.tables WHERE table_schema = 'loaded';";
const COUNT_MARIADB =
  'SELECT count(*) AS tables FROM information_schema.tables WHERE table_schema = database()';

/** How many tables a model has: one for each entity and each pairing. */
const tablesWanted = ({ declarations }: Model): number =>
  declarations.filter(({ kind }) => kind === 'entity' || kind === 'pairs').length;

async function loads(model: Model): Promise<void> {
  const wanted = tablesWanted(model);
  if (wanted === 0) return;
  const maria = tablesOf(model, 'mariadb.sql');
  const found = await inMariaDb<{ tables: number }>(maria, COUNT_MARIADB).catch((error: unknown) => {
    throw new Error(`${maria}\n${String(error)}`);
  });
  expect(found).toEqual([{ tables: wanted }]);
  const postgres = tablesOf(model, 'postgresql.sql');
  const count = await inPostgres(postgres, COUNT_POSTGRES).catch((error: unknown) => {
    throw new Error(`${postgres}\n${String(error)}`);
  });
  expect(count).toBe(String(wanted));
}

describe('tables', () => {
  test.each([
    ['Kestrel Sound Ferries', kestrelText],
    ['the tool shed', toolShedText],
  ])('of %s load into both databases', async (_name, text) => {
    await loads(modelOf(text));
  });

  test('of any model do', async () => {
    await fc.assert(fc.asyncProperty(anyModel, loads), rounds(20));
  }, 600_000);

  test('of references in a circle do, and of names that are too long or reserved', async () => {
    const long = 'Very'.repeat(18);
    await loads(
      modelOf(`entity Order
  select: text(..300), required, unique
  from: integer

entity User
  table: uuid, key, generated

entity ${long}A
  code: text, key

entity ${long}B
  code: text, key

each Order refers to optional User as user, on remove detach
each User refers to optional Order as order, back as users
each ${long}A refers to optional ${long}B as very
each ${long}B refers to optional ${long}A as very
`),
    );
  });

  test('of what quotes, escapes and comments could end are just that', async () => {
    const hostile = `it's \\\\ "quoted" \\"; -- */ /* \` $(touch X) | '; DROP TABLE harbours; '`;
    const model = modelOf(
      `entity Harbour "${hostile.replaceAll('"', '\\"').replaceAll('\\\\"', '\\"')}"\n  name: text, default "a'b", required\n  kind: choice("it's", "no; --")\n`,
    );
    await loads(model);
    const comment = await inPostgres(
      tablesOf(model, 'postgresql.sql'),
      "SELECT obj_description('harbours'::regclass);",
    );
    const [entity] = model.declarations;
    expect(comment).toBe(entity?.description);
    const rows = await inMariaDb<{ comment: string }>(
      tablesOf(model, 'mariadb.sql'),
      "SELECT table_comment AS comment FROM information_schema.tables WHERE table_schema = database() AND table_name = 'harbours'",
    );
    expect(rows).toEqual([{ comment: entity?.description }]);
  });

  test('tell texts apart exactly, and keep what the model asks for', async () => {
    const model = modelOf(`entity Tag
  code: text(1..8), key
  size: integer(1..3), default 2, required
  kind: choice(red, blue)

entity Item
  name: text(..10)

each Tag owns many Item as items, back as tag
`);
    const insert = `INSERT INTO tags (code) VALUES ('a'), ('A'), ('a ');\nINSERT INTO items (tag_code) VALUES ('A');\nDELETE FROM tags WHERE code = 'A';`;
    const question = 'SELECT count(*) AS found FROM tags WHERE size = 2';
    expect(await inPostgres(`${tablesOf(model, 'postgresql.sql')}\n${insert}`, `${question};`)).toBe('2');
    expect(await inMariaDb(`${tablesOf(model, 'mariadb.sql')}\n${insert}`, question)).toEqual([{ found: 2 }]);
    for (const wrong of ["('', 1, NULL)", "('b', 4, NULL)", "('b', 1, 'grey')"]) {
      const refused = `INSERT INTO tags (code, size, kind) VALUES ${wrong};`;
      await expect(inPostgres(`${tablesOf(model, 'postgresql.sql')}\n${refused}`, '')).rejects.toThrow(
        'check',
      );
      await expect(inMariaDb(`${tablesOf(model, 'mariadb.sql')}\n${refused}`, 'SELECT 1')).rejects.toThrow(
        'CONSTRAINT',
      );
    }
  });
});
