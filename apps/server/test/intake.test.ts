import { createServer, request } from 'node:http';
import { connect, createServer as createProxy, type AddressInfo, type Socket } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TEST_SETTINGS } from './support/settings.js';
import { clientAbortSignal } from '../src/http/clientAbort.js';
import { MAX_INTAKE_BYTES } from '@isomeros/core/intake';
import type { CreatedDesign, LiveSchemaAddress, RunningIntake } from '@isomeros/api';
import { readLiveSchema } from '../src/intake/liveSchema.js';
import { ComputeService } from '../src/compute/compute.service.js';
import { IntakeService } from '../src/intake/intake.service.js';
import { TestApp, type DesignBody, type ProblemBody } from './support/app.js';
import { createSchema, dropSchema, execute } from './support/database.js';
import { eventually } from './support/server.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

const begin = (format: string, text: string, name = 'Read'): Promise<Response> =>
  app.send('POST', '/api/designs', { name, source: { format, text } });

/** DDL of about so many bytes. */
function ddl(bytes: number): string {
  const parts: string[] = [];
  for (let size = 0, index = 1; size < bytes; index++) {
    const table = `CREATE TABLE t${index} (id int AUTO_INCREMENT PRIMARY KEY, name varchar(80) NOT NULL COMMENT 'What it is called', amount decimal(10,2));\n`;
    parts.push(table);
    size += table.length;
  }
  return parts.join('');
}

describe('designs from what there is already', () => {
  test.each([
    [
      'sql',
      'CREATE TABLE routes (id int PRIMARY KEY, name varchar(80) NOT NULL);',
      'entity Route\n  name: text(..80), required',
    ],
    [
      'json-schema',
      '{"$defs":{"Route":{"type":"object","properties":{"id":{"type":"integer"},"name":{"type":"string"}}}}}',
      'entity Route\n  name: text\n',
    ],
    ['records', '[{"id":1,"name":"A","openedOn":"2026-06-14"}]', 'openedOn: date, required'],
  ])('%s', async (format, source, expected) => {
    const response = await begin(format, source);
    expect(response.status).toBe(201);
    expect(((await response.json()) as DesignBody).text).toContain(expected);
  });

  test('answers with the report that the page shows, and the sums match', async () => {
    const source =
      "CREATE TABLE routes (id int PRIMARY KEY, pin varchar(9), opened datetime, place point, fare int DEFAULT 'x');";
    const { report } = (await (await begin('sql', source)).json()) as CreatedDesign;
    expect(report?.understood.map(({ statement }) => statement)).toContain('Route.pin');
    expect(report?.assumed.map(({ assumption }) => assumption)).toEqual(['opened is in UTC.']);
    expect(report?.asked).toMatchObject([
      { question: 'May pin ever be returned?', options: [{ label: 'never', assumed: true }, {}, {}] },
    ]);
    expect(report?.leftOut.map(({ source: left }) => left)).toEqual([
      'routes.place point',
      "routes.fare DEFAULT 'x'",
    ]);
    expect(report?.counts).toEqual([
      { kind: 'tables', found: 1, understood: 1, asked: 0, leftOut: 0 },
      { kind: 'columns', found: 5, understood: 3, asked: 1, leftOut: 1 },
      { kind: 'keys', found: 1, understood: 1, asked: 0, leftOut: 0 },
      { kind: 'defaults', found: 1, understood: 0, asked: 0, leftOut: 1 },
    ]);
    const plain = (await (await begin('notation', 'entity Route\n')).json()) as CreatedDesign;
    expect(plain.report).toBeNull();
  });

  test.each([
    ['sql', 'once upon a time', 'No CREATE TABLE was found.'],
    ['json-schema', '{"a":1,"a":2}', 'The member "a" stands twice.'],
    ['records', '42\u0000', 'zero bytes'],
  ])('%s that cannot be read is refused with why', async (format, source, why) => {
    const response = await begin(format, source);
    expect(response.status).toBe(422);
    expect(((await response.json()) as ProblemBody).detail).toContain(why);
  });

  test('more than 10 MiB is refused with that number', async () => {
    const response = await begin('sql', '-'.repeat(MAX_INTAKE_BYTES + 1));
    expect(response.status).toBe(413);
    expect(((await response.json()) as ProblemBody).detail).toContain(String(MAX_INTAKE_BYTES));
    const huge = await begin('sql', '-'.repeat(25 * 1_048_576));
    expect(((await huge.json()) as ProblemBody).detail).toContain(String(MAX_INTAKE_BYTES));
  });

  test('10 MB of values between commas are read', async () => {
    const rows = Array.from(
      { length: 280_000 },
      (_, at) => `${at + 1},K${at % 97},Harbour number ${at},${at % 40}.5`,
    );
    const source = `id,code,name,depth\n${rows.join('\n')}`;
    expect(source.length).toBeGreaterThan(10_000_000);
    const response = await begin('records', source, 'Harbour');
    expect(response.status).toBe(201);
    expect(((await response.json()) as DesignBody).text).toContain('depth: decimal, required');
  });

  test('a source can be read without waiting for it: how far it is, and what became of it, is told', async () => {
    const rows = Array.from({ length: 60_000 }, (_, at) => `${at + 1},KSH-${at},${at % 7}.5`);
    const text = `id,code,depth\n${rows.join('\n')}`;
    const source = { format: 'records', text, record: 'Harbour' };
    const begun = await app.send('POST', '/api/intakes', { name: 'Read', source });
    expect(begun.status).toBe(202);
    const path = begun.headers.get('location') ?? '';
    const told: number[] = [];
    const ended = await eventually(async () => {
      const intake = await app.json<RunningIntake>('GET', path);
      told.push(intake.done);
      return intake.design === null ? null : intake;
    }, 'the end of the intake');
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.some((done) => done > 0 && done < 1)).toBe(true);
    expect([ended.done, ended.problem, ended.report?.counts[0]?.found]).toEqual([1, null, 60_000]);
    expect((await app.json<DesignBody>('GET', `/api/designs/${ended.design ?? ''}`)).initialRecords).toBe(
      60_000,
    );
    expect((await app.send('DELETE', path)).status).toBe(204);
    expect((await app.send('GET', path)).status).toBe(404);
  });

  test('an intake that comes to nothing says why, and one that is cancelled leaves no design', async () => {
    const begun = await app.json<RunningIntake>('POST', '/api/intakes', {
      source: { format: 'sql', text: 'SELECT 1;' },
    });
    const ended = await eventually(async () => {
      const intake = await app.json<RunningIntake>('GET', `/api/intakes/${begun.id}`);
      return intake.problem === null ? null : intake;
    }, 'the problem of the intake');
    expect([ended.design, ended.problem?.status, ended.problem?.detail]).toEqual([
      null,
      422,
      'No CREATE TABLE was found.',
    ]);
    const source = { format: 'sql', text: ddl(2_000_000) };
    const { id } = await app.json<RunningIntake>('POST', '/api/intakes', { name: 'Never made', source });
    expect((await app.send('DELETE', `/api/intakes/${id}`)).status).toBe(204);
    expect((await begin('sql', ddl(100), 'Made after it')).status).toBe(201);
    const { items } = await app.json<{ items: readonly DesignBody[] }>('GET', '/api/designs?name=Never');
    expect(items).toEqual([]);
  });

  test('what became of intakes makes room for those that follow', async () => {
    const ended: string[] = [];
    for (let count = 1; count <= 14; count++) {
      const source = { format: 'notation', text: `design "Room ${count}"\nentity Shed\n  name: text\n` };
      const { id } = await app.json<RunningIntake>('POST', '/api/intakes', { source });
      await eventually(async () => {
        const { design } = await app.json<RunningIntake>('GET', `/api/intakes/${id}`);
        return design;
      }, 'the end of the intake');
      ended.push(`/api/intakes/${id}`);
    }
    expect((await app.send('GET', ended.at(-1) ?? '')).status).toBe(200);
    expect((await app.send('GET', ended[0] ?? '')).status).toBe(404);
  });

  test('while a large source is read the server goes on answering', async () => {
    const state = { isRead: false };
    const reading = begin('sql', ddl(600_000)).finally(() => (state.isRead = true));
    let answered = 0;
    for (; !state.isRead; answered++) expect((await app.send('GET', '/api/problems')).status).toBe(200);
    expect((await reading).status).toBe(201);
    expect(answered).toBeGreaterThan(3);
  });

  test('a reading ends when its client goes away, and leaves room for others', async () => {
    const compute = new ComputeService(TEST_SETTINGS);
    const intake = new IntakeService(compute);
    const gone = [new AbortController(), new AbortController()];
    const readings = gone.map(({ signal }) =>
      intake.read('sql', { text: ddl(2_000_000), name: 'Gone' }, signal),
    );
    gone.forEach((controller) => setImmediate(() => controller.abort()));
    for (const reading of readings) await expect(reading).rejects.toThrow('The client went away.');
    const { intake: read } = await intake.read(
      'sql',
      { text: ddl(100), name: 'Next' },
      new AbortController().signal,
    );
    expect(read.text).toContain('entity T1');
    await compute.onModuleDestroy();
  });

  test('a connection that closes before it is answered is a client gone; one that was answered is none', async () => {
    const seen: AbortSignal[] = [];
    const server = createServer((incoming, response) => {
      seen.push(clientAbortSignal(response));
      incoming.resume();
      if (incoming.url === '/answered') response.end();
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    await (await fetch(`http://127.0.0.1:${port}/answered`)).text();
    const asked = request({ port, method: 'POST', path: '/' }).on('error', () => undefined);
    asked.end('a whole body', () => undefined);
    await eventually(() => Promise.resolve(seen.length === 2 ? true : null), 'both requests');
    asked.destroy();
    await eventually(() => Promise.resolve(seen[1]?.aborted === true ? true : null), 'the client to be gone');
    expect(seen[0]?.aborted).toBe(false);
    await new Promise((resolve) => server.close(resolve));
  });
});

describe('a live MariaDB schema', () => {
  let schema: string;
  let url: URL;
  beforeAll(async () => {
    schema = await createSchema();
    url = new URL(schema);
    await execute(
      `CREATE TABLE routes (id int AUTO_INCREMENT PRIMARY KEY, name varchar(80) NOT NULL UNIQUE);
       CREATE TABLE stops (id int AUTO_INCREMENT PRIMARY KEY, route_id int NOT NULL, at time,
         FOREIGN KEY (route_id) REFERENCES routes (id) ON DELETE CASCADE);
       CREATE VIEW all_stops AS SELECT * FROM stops;
       INSERT INTO routes (name) VALUES ('kept as it was');`,
      url.pathname.slice(1),
    );
  });
  afterAll(() => dropSchema(schema));

  const address = (): Record<string, unknown> => ({
    host: url.hostname,
    port: Number(url.port),
    user: url.username,
    password: decodeURIComponent(url.password),
    schema: url.pathname.slice(1),
  });

  test('is read as DDL, views named, nothing else asked', async () => {
    const live = await app.json<{ ddl: string; tables: number; views: number }>(
      'POST',
      '/api/live-schemas',
      address(),
    );
    expect([live.tables, live.views]).toEqual([2, 1]);
    expect(live.ddl).not.toContain('kept as it was');
    const design = (await (await begin('sql', live.ddl)).json()) as DesignBody;
    expect(design.text).toContain('each Route owns many Stop as stops, back as route');
    expect(design.text).toContain('name: text(..80), required, unique');
  });

  test.each<readonly [string, Record<string, unknown>, number, RegExp]>([
    ['a wrong password', { password: 'wrong' }, 502, /refused \w+ with this password/],
    ['a schema that is not there', { schema: 'nowhere_at_all' }, 502, /There is no schema nowhere_at_all/],
    ['a port where nothing answers', { port: 1 }, 502, /Nothing answers at 127.0.0.1:1/],
    ['a host elsewhere, not confirmed', { host: 'database.example' }, 400, /not on this machine/],
    ['a host that is no name', { host: 'a b; DROP' }, 400, /do(es)? not fit/],
  ])('%s is told, and the password is not', async (_name, change, status, detail) => {
    const response = await app.send('POST', '/api/live-schemas', { ...address(), ...change });
    expect(response.status).toBe(status);
    const text = await response.text();
    expect((JSON.parse(text) as ProblemBody).detail).toMatch(detail);
    expect(text).not.toContain(String({ ...address(), ...change }['password']));
  });

  test('a database that goes silent after the login is given up', async () => {
    // It passes everything on but statements: a packet of a new command, whose first byte says COM_QUERY.
    const isStatement = (data: Buffer): boolean => data[3] === 0 && data[4] === 3;
    const sockets: Socket[] = [];
    const proxy = createProxy((client) => {
      const database = connect(Number(url.port), '127.0.0.1');
      sockets.push(client, database);
      client.on('data', (data) => isStatement(data) || database.write(data)).on('error', () => undefined);
      database.on('data', (data) => client.write(data)).on('error', () => undefined);
    });
    await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
    const { port } = proxy.address() as AddressInfo;
    const where = { ...address(), port, remote: false } as unknown as LiveSchemaAddress;
    await expect(readLiveSchema(where, 200)).rejects.toThrow(
      `127.0.0.1:${port} went silent, and was given up.`,
    );
    for (const socket of sockets) socket.destroy();
    await new Promise((resolve) => proxy.close(resolve));
  });

  test('a host elsewhere is tried once that is confirmed', async () => {
    const elsewhere = { ...address(), host: 'nothing.invalid', remote: true };
    const response = await app.send('POST', '/api/live-schemas', elsewhere);
    expect(response.status).toBe(502);
  });
});
