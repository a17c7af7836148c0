import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Choices } from '@isomeros/core/arrangement';
import { DataSource, type QueryRunner } from 'typeorm';
import { packJson, unpackJson } from '../src/database/compressedJson.js';
import { databaseOptions, MIGRATIONS } from '../src/database/options.js';
import { createSchema, dropSchema, runSql, schemaName } from './support/database.js';
import { eventually, SERVER_PROGRAM, ServerProcess } from './support/server.js';

// TypeORM tells the console of each migration that fails.
beforeAll(() => {
  jest.spyOn(console, 'log').mockImplementation(() => undefined);
});
afterAll(() => {
  jest.restoreAllMocks();
});

let schema: string;
beforeEach(async () => {
  schema = await createSchema();
});
afterEach(() => dropSchema(schema));

interface Migrating {
  /** The address of the schema. */
  readonly of?: string;
  /** So many of the migrations; all of them where no number is given. */
  readonly count?: number;
  /** It ends before the statement behind so many, as a killed start does. */
  readonly statements?: number;
}

/** Runs the first migrations. Tells whether they came to their end, and how many statements were run. */
async function migrate({
  of = schema,
  count = MIGRATIONS.length,
  statements = Infinity,
}: Migrating = {}): Promise<{ readonly isDone: boolean; readonly run: number }> {
  const migrations = MIGRATIONS.slice(0, count);
  const source = new DataSource({ ...databaseOptions(of), migrations, migrationsRun: false });
  await source.initialize();
  let run = 0;
  const createRunner = source.createQueryRunner.bind(source);
  source.createQueryRunner = (mode): QueryRunner => {
    const runner = createRunner(mode);
    const query = runner.query.bind(runner);
    runner.query = (...args: Parameters<QueryRunner['query']>): ReturnType<QueryRunner['query']> =>
      run++ < statements ? query(...args) : Promise.reject(new Error('The start ended here.'));
    return runner;
  };
  try {
    await source.runMigrations({ transaction: 'each' });
    return { isDone: true, run };
  } catch (error) {
    if (run <= statements) throw error;
    return { isDone: false, run };
  } finally {
    await source.destroy();
  }
}

/** What an installation of the first version held. */
const FIRST_RECORDS = `
  INSERT INTO designs (id, name, text, sound_text, identities, revision, created_at, changed_at)
    VALUES ('d1', 'Ferries', 'design "Ferries"', 'design "Ferries"', '{}', 1, NOW(3), NOW(3));
  INSERT INTO arrangements VALUES ('d1', 'main'), ('d1', 'partners');
  INSERT INTO mocks VALUES ('m1', 'd1', '["main"]', 4811, 1, NOW(3)), ('m2', 'd1', '["partners"]', 4812, 0, NOW(3));
  INSERT INTO datasets VALUES ('m1', 42, '{"Route":3}', 'design "Ferries"', '{}', 1, '{"rid":1,"attributes":{}}', 7, 'h1');
  INSERT INTO records VALUES ('m1', 1, '{}');`;

const tablesOf = async (address: string): Promise<readonly string[]> => {
  const found = await runSql(
    address,
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() ORDER BY 1',
  );
  return found.map(({ name }) => String(name));
};

/** A schema with the same tables, and the same rows in them. */
async function copyOf(address: string): Promise<string> {
  const copy = await createSchema('copy');
  const tables = await tablesOf(address);
  const made: string[] = [];
  for (const table of tables) {
    const [row] = await runSql(address, `SHOW CREATE TABLE ${table}`);
    made.push(String(row?.['Create Table']));
  }
  const filled = tables.map((table) => `INSERT INTO ${table} SELECT * FROM ${schemaName(address)}.${table}`);
  await runSql(copy, ['SET foreign_key_checks = 0', ...made, ...filled].join(';'));
  return copy;
}

/** A row without what is another one each time: numbers of migrations have gaps where one ended, secrets are made by chance. */
function settled(table: string, row: Readonly<Record<string, unknown>>): object {
  if (table === 'migrations') return { name: row['name'] };
  return 'secret' in row ? { ...row, secret: String(row['secret']).length } : row;
}

/** The columns of all tables, and their rows. */
async function contentOf(address: string): Promise<unknown> {
  const columns = await runSql(
    address,
    `SELECT table_name, column_name, ordinal_position, column_type, is_nullable, column_default, column_key
     FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY table_name, ordinal_position`,
  );
  const rows: unknown[] = [];
  for (const table of await tablesOf(address))
    for (const row of await runSql(address, `SELECT * FROM ${table}`))
      rows.push([table, settled(table, row)]);
  return { columns, rows };
}

async function expectUpgraded(of = schema): Promise<void> {
  const [design] = await runSql(of, 'SELECT choices FROM designs');
  const choices = JSON.parse(String(design?.['choices'])) as { arrangements: { name: string }[] };
  expect(choices.arrangements.map(({ name }) => name)).toEqual(['main', 'partners']);
  const mocks = await runSql(of, 'SELECT id, CHAR_LENGTH(secret) AS secret FROM mocks ORDER BY id');
  expect(mocks).toEqual([
    { id: 'm1', secret: 43 },
    { id: 'm2', secret: 43 },
  ]);
  const endpoints = await runSql(
    of,
    'SELECT mock_id, kind, name, position, port FROM mock_endpoints ORDER BY mock_id',
  );
  expect(endpoints).toEqual([
    { mock_id: 'm1', kind: 'arrangement', name: 'main', position: 0, port: 4811 },
    { mock_id: 'm2', kind: 'arrangement', name: 'partners', position: 0, port: 4812 },
  ]);
  const [dataset] = await runSql(of, 'SELECT seed_plan FROM datasets');
  expect(JSON.parse(String(dataset?.['seed_plan']))).toEqual({
    counts: { Route: 3 },
    children: {},
    shares: {},
  });
  expect(await runSql(of, 'SELECT COUNT(*) AS records FROM records')).toEqual([{ records: 1 }]);
}

describe('a start that ends during migrations', () => {
  test('leaves a database in which the next start goes on, wherever it ended', async () => {
    let ends = 0;
    for (const isUpgrade of [false, true]) {
      let before = await createSchema('before');
      if (isUpgrade) {
        await migrate({ of: before, count: 1 });
        await runSql(before, FIRST_RECORDS);
      }
      for (let count = isUpgrade ? 2 : 1; count <= MIGRATIONS.length; count++) {
        const after = await copyOf(before);
        await migrate({ of: after, count });
        const whole = await contentOf(after);
        // What is asked before a migration begins is the same of all of them, and changes nothing.
        const { run: asked } = await migrate({ of: after, count });
        let isDone = false;
        for (let statements = count === 1 ? 1 : asked; !isDone; statements++) {
          const ended = await copyOf(before);
          ({ isDone } = await migrate({ of: ended, count, statements }));
          await migrate({ of: ended, count });
          expect([isUpgrade, count, statements, await contentOf(ended)]).toEqual([
            isUpgrade,
            count,
            statements,
            whole,
          ]);
          await dropSchema(ended);
          ends++;
        }
        await dropSchema(before);
        before = after;
      }
      if (isUpgrade) await expectUpgraded(before);
      await dropSchema(before);
    }
    // Fewer would mean that the runs were not cut short at all.
    expect(ends).toBeGreaterThan(4 * MIGRATIONS.length);
  });

  test('may end twice in the same migration', async () => {
    await migrate({ count: 1 });
    await runSql(schema, FIRST_RECORDS);
    for (let statements = 4; !(await migrate({ statements })).isDone; statements++);
    await expectUpgraded();
  });

  test('however its process is killed', async () => {
    for (const [tables, signal] of [
      [1, 'SIGKILL'],
      [4, 'SIGINT'],
      [7, 'SIGKILL'],
      [10, 'SIGINT'],
    ] as const) {
      const env = { ...process.env, ISOMEROS_DATABASE_URL: schema, ISOMEROS_PORT: '5800' };
      const child = spawn(process.execPath, [SERVER_PROGRAM], { env, stdio: 'ignore' });
      const ended = once(child, 'exit');
      await eventually(
        async () => ((await tablesOf(schema)).length >= tables ? true : null),
        `${tables} tables`,
      );
      child.kill(signal);
      await ended;
    }
    const server = await ServerProcess.start(schema);
    try {
      const { items } = (await server.get('/api/designs')) as { items: readonly object[] };
      expect(items).toHaveLength(1);
    } finally {
      await server.end('SIGTERM');
    }
  });
});

describe('designs of before the table of nouns', () => {
  const TEXT = 'design "Optics"\nentity Camera\nentity Lens\neach Camera owns many Lens\n';
  const CHOICES = JSON.stringify({ format: 3, arrangements: [{ name: 'main' }] });
  const KEPT = { text: TEXT.replace('many Lens', 'many Lens as lens'), word: 'Lens' };

  /** The text and the kept plural, from what is stored of a model. */
  const found = (text: unknown, choices: unknown): object => ({
    text,
    word: (JSON.parse(String(choices)) as Choices).arrangements[0]?.words['Lens/plural'],
  });

  test('keep their plurals wherever they are stored: design, revisions, records and snapshots', async () => {
    await migrate({ count: 13 });
    const state = async (text: object): Promise<string> =>
      (await packJson({ text: TEXT, ...text, identities: '{}', choices: CHOICES })).toString('hex');
    const model = { modelText: TEXT, modelIdentities: '{}', modelChoices: CHOICES, modelRevision: 1 };
    const snapshot = (await packJson({ model, rows: [] })).toString('hex');
    const values = `'${TEXT}', '{}', '${CHOICES}'`;
    await runSql(
      schema,
      `INSERT INTO designs (id, name, text, valid_text, identities, choices, rename_candidates, revision,
         created_at, changed_at) VALUES ('d1', 'Optics', '${TEXT}', ${values}, '{}', 2, NOW(3), NOW(3));
       INSERT INTO revisions (design_id, number, at, what, valid, lines_added, lines_removed, state) VALUES
         ('d1', 1, NOW(3), 'text', 1, 0, 0, X'${await state({ soundText: TEXT })}'),
         ('d1', 2, NOW(3), 'text', 1, 0, 0, X'${await state({ format: 2, validText: TEXT })}');
       INSERT INTO mocks (id, design_id, running, created_at, secret, faults)
         VALUES ('m1', 'd1', 0, NOW(3), 's', '{}');
       INSERT INTO datasets (id, seed, seed_plan, model_text, model_identities, model_choices, model_revision,
         counters, sequence, holder) VALUES ('m1', 1, '{}', ${values}, 1, '{}', 1, 'h');
       INSERT INTO snapshots VALUES ('m1', 's1', NOW(3), 0, X'${snapshot}')`,
    );
    await migrate();
    const [design] = await runSql(schema, 'SELECT text, valid_text, choices FROM designs');
    expect(found(design?.['text'], design?.['choices'])).toEqual(KEPT);
    expect(design?.['valid_text']).toBe(KEPT.text);
    const revisions = await runSql(schema, 'SELECT state FROM revisions ORDER BY number');
    const states = await Promise.all(
      revisions.map(async (row) => unpackJson<Record<string, unknown>>(row['state'] as Buffer)),
    );
    expect(states.map((one) => found(one['text'], one['choices']))).toEqual([KEPT, KEPT]);
    expect([states[0]?.['soundText'], states[1]?.['validText']]).toEqual([KEPT.text, KEPT.text]);
    const [dataset] = await runSql(schema, 'SELECT model_text, model_choices FROM datasets');
    expect(found(dataset?.['model_text'], dataset?.['model_choices'])).toEqual(KEPT);
    const [row] = await runSql(schema, 'SELECT state FROM snapshots');
    const taken = await unpackJson<{ model: typeof model }>(row?.['state'] as Buffer);
    expect(found(taken.model.modelText, taken.model.modelChoices)).toEqual(KEPT);
  });
});
