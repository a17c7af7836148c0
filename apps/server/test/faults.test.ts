import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { createSchema, runSql } from './support/database.js';
import { sendJson } from './support/server.js';

const TEXT = `entity Route
  name: text(1..60), required, unique

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

/** What MariaDB says when a disk is full, and when a table is (1021, 1114). */
const FULL = [1021, 1114] as const;

let schema: string;
let app: TestApp;
let mock: MockBody;
beforeAll(async () => {
  schema = await createSchema();
  app = await TestApp.start({ databaseUrl: schema });
  const { id } = await app.createDesign(TEXT);
  mock = await app.createMock(id, { counts: { Route: 3, Sailing: 6 } });
});
afterEach(async () => {
  await runSql(schema, 'DROP TRIGGER IF EXISTS fault');
});
afterAll(() => app.close());

const routes = async (): Promise<{ id: number; name: string }[]> => {
  const response = await fetch(`${mock.baseUrls.main}/routes?size=100`);
  return ((await response.json()) as { items: { id: number; name: string }[] }).items;
};

const add = (name: string): Promise<Response> => sendJson(`${mock.baseUrls.main}/routes`, 'POST', { name });

/** All rows that are stored of the mock, as the database has them. */
const stored = async (): Promise<number> => {
  const [row] = await runSql(schema, 'SELECT COUNT(*) AS n FROM records');
  return Number(row?.['n']);
};

describe('a disk that is full', () => {
  test.each(FULL)(
    'refuses writes with 503 and changes nothing, reads go on, and it recovers: error %i',
    async (error) => {
      const before = await routes();
      await runSql(
        schema,
        `CREATE TRIGGER fault BEFORE INSERT ON records FOR EACH ROW
       SIGNAL SQLSTATE 'HY000' SET MYSQL_ERRNO = ${error}, MESSAGE_TEXT = 'Disk full'`,
      );
      const refused = await Promise.all(['a', 'b', 'c'].map((name) => add(`Full ${error} ${name}`)));
      expect(refused.map(({ status }) => status)).toEqual([503, 503, 503]);
      expect(refused[0]?.headers.get('retry-after')).toBe('1');
      expect(((await refused[0]?.json()) as ProblemBody).detail).toBe(
        'The database did not take the write. Nothing was changed.',
      );
      expect(await routes()).toEqual(before);
      await runSql(schema, 'DROP TRIGGER fault');
      const made = await add(`Full ${error} a`);
      expect(made.status).toBe(201);
      expect((await routes()).map(({ name }) => name)).toContain(`Full ${error} a`);
    },
  );

  test('half-way through a write of several records leaves none of it', async () => {
    const before = await stored();
    await runSql(
      schema,
      `CREATE TRIGGER fault BEFORE INSERT ON records FOR EACH ROW
       BEGIN IF NEW.data LIKE '%Last of them%' THEN
         SIGNAL SQLSTATE 'HY000' SET MYSQL_ERRNO = 1114, MESSAGE_TEXT = 'Table full';
       END IF; END`,
    );
    const names = [...Array.from({ length: 700 }, (_, index) => `Many ${index}`), 'Last of them'];
    const path = `/api/mocks/${mock.id}/records`;
    const refused = await app.send('POST', path, { Route: names.map((name) => ({ name })) });
    expect(refused.status).toBe(503);
    expect(await stored()).toBe(before);
    expect((await routes()).some(({ name }) => name.startsWith('Many'))).toBe(false);
  });

  test('half-way through a cascade leaves all of it', async () => {
    await runSql(
      schema,
      `CREATE TRIGGER fault BEFORE DELETE ON records FOR EACH ROW
       BEGIN IF OLD.data LIKE '%berth%' THEN
         SIGNAL SQLSTATE 'HY000' SET MYSQL_ERRNO = 1021, MESSAGE_TEXT = 'Disk full';
       END IF; END`,
    );
    await sendJson(`${mock.baseUrls.main}/routes/1/sailings`, 'POST', { berth: 'A1' });
    const before = await stored();
    expect((await sendJson(`${mock.baseUrls.main}/routes/1`, 'DELETE')).status).toBe(503);
    expect((await fetch(`${mock.baseUrls.main}/routes/1/sailings`)).status).toBe(200);
    expect(await stored()).toBe(before);
    await runSql(schema, 'DROP TRIGGER fault');
    expect((await sendJson(`${mock.baseUrls.main}/routes/1`, 'DELETE')).status).toBe(204);
    expect((await fetch(`${mock.baseUrls.main}/routes/1/sailings`)).status).toBe(404);
  });
});

describe('a slow database', () => {
  test('lets reads go on, shows nothing before it is stored, and takes waiting writes together', async () => {
    await runSql(
      schema,
      'CREATE TRIGGER fault BEFORE UPDATE ON datasets FOR EACH ROW SET NEW.holder = IF(SLEEP(0.4) = 0, NEW.holder, NEW.holder)',
    );
    const sequence = async (): Promise<number> => {
      const [row] = await runSql(schema, 'SELECT sequence FROM datasets');
      return Number(row?.['sequence']);
    };
    const before = await sequence();
    let isDone = false;
    const slow = Promise.all(Array.from({ length: 40 }, (_, index) => add(`Slow ${index}`))).then((all) => {
      isDone = true;
      return all;
    });
    const seen = await routes();
    expect(isDone).toBe(false);
    expect(seen.some(({ name }) => name.startsWith('Slow'))).toBe(false);
    expect(new Set((await slow).map(({ status }) => status))).toEqual(new Set([201]));
    expect((await routes()).filter(({ name }) => name.startsWith('Slow'))).toHaveLength(40);
    // Most of them waited for the first, and were committed as one.
    expect((await sequence()) - before).toBeLessThan(10);
  });

  test('a unique value that is still being stored is taken already', async () => {
    await runSql(
      schema,
      'CREATE TRIGGER fault BEFORE UPDATE ON datasets FOR EACH ROW SET NEW.holder = IF(SLEEP(0.2) = 0, NEW.holder, NEW.holder)',
    );
    const answers = await Promise.all([add('Only once'), add('Only once')]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409]);
  });
});
