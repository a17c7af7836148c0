import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { plainArrangement } from '@isomeros/core/arrangement';
import { DataSource } from 'typeorm';
import { databaseOptions } from '../src/database/options.js';
import { TestApp, type DesignBody, type MockBody, type ProblemBody } from './support/app.js';
import { createSchema } from './support/database.js';
import { eventually, sendJson } from './support/server.js';
import { parse } from 'yaml';

const TEXT = `design "Arranged"

entity Route
  name: text(1..60), required

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings, back as route
`;

const OWNS = 'Route>Sailing:sailings';

interface ContractBody {
  readonly root: string;
  readonly resources: readonly { readonly path: string }[];
}

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

const pathsOf = async (id: string, name: string): Promise<string[]> => {
  const path = `/api/designs/${id}/arrangements/${encodeURIComponent(name)}/contract`;
  return (await app.json<ContractBody>('GET', path)).resources.map((resource) => resource.path);
};

const statusOf = async (url: string): Promise<number> => (await fetch(url)).status;

describe('arrangements of a design', () => {
  test('another one is made by PUT, and lays the same model out in its own way', async () => {
    const { id } = await app.createDesign(TEXT);
    const path = `/api/designs/${id}/arrangements/Shore%20office`;
    const made = await app.send('PUT', path, { settings: {}, placements: { [OWNS]: 'flat' } });
    expect([made.status, made.headers.get('location')]).toEqual([201, path]);
    expect((await app.send('PUT', path, { settings: {}, placements: { [OWNS]: 'flat' } })).status).toBe(200);
    expect(await pathsOf(id, 'Shore office')).toContain('/sailings');
    expect(await pathsOf(id, 'main')).toContain('/routes/{routeId}/sailings');
    const design = await app.json<{ arrangements: unknown }>('GET', `/api/designs/${id}`);
    expect(design.arrangements).toEqual([{ name: 'main' }, { name: 'Shore office' }]);
    expect(await app.json('GET', path)).toMatchObject({ placements: { [OWNS]: 'flat' } });
  });

  test('a mock serves the one it was made for, under its new name too', async () => {
    const { id } = await app.createDesign(TEXT);
    const path = `/api/designs/${id}/arrangements/flat`;
    await app.json('PUT', path, { settings: {}, placements: { [OWNS]: 'flat' } });
    const mock = await app.json<MockBody & { baseUrls: { flat: string } }>('POST', '/api/mocks', {
      design: id,
      arrangements: ['flat'],
    });
    expect(await statusOf(`${mock.baseUrls.flat}/sailings`)).toBe(200);
    expect((await app.send('DELETE', path)).status).toBe(409);
    await app.json('PUT', `${path}/name`, { name: 'beside' });
    const renamed = await app.json<{ baseUrls: Record<string, string> }>('GET', `/api/mocks/${mock.id}`);
    expect(Object.keys(renamed.baseUrls)).toEqual(['beside']);
    await app.json('PUT', `/api/designs/${id}/arrangements/beside`, { settings: { version: 'v2' } });
    const nested = `http://127.0.0.1:${mock.port}/api/v2/routes/1/sailings`;
    expect(await eventually(async () => ((await statusOf(nested)) === 200 ? true : null), 'version 2')).toBe(
      true,
    );
    const without = { settings: {}, arrangements: [{ name: 'main' }], answered: [] };
    const refused = await app.send('PUT', `/api/designs/${id}/choices`, without);
    expect([refused.status, ((await refused.json()) as ProblemBody).detail]).toEqual([
      409,
      `The mock on port ${mock.port} serves the arrangement beside; remove the mock first.`,
    ]);
  });

  test('several are served at once from the same records, each on an address of its own', async () => {
    const { id } = await app.createDesign(TEXT);
    const flat = `/api/designs/${id}/arrangements/flat`;
    await app.json('PUT', flat, { settings: { version: 'v2' }, placements: { [OWNS]: 'flat' } });
    const mock = await app.json<MockBody & { baseUrls: { main: string; flat: string } }>(
      'POST',
      '/api/mocks',
      {
        design: id,
        arrangements: ['main', 'flat'],
        counts: { Route: 1, Sailing: 0 },
      },
    );
    const { main, flat: beside } = mock.baseUrls;
    expect(main).toMatch(/\/api\/v1$/);
    expect(beside).toMatch(/\/api\/v2$/);
    const made = await sendJson(`${main}/routes/1/sailings`, 'POST', { berth: 'A' });
    expect(made.status).toBe(201);
    const { id: sailing } = (await made.json()) as { id: number };
    expect(await (await fetch(`${beside}/sailings/${sailing}`)).json()).toMatchObject({
      berth: 'A',
      routeId: 1,
    });
    expect(await statusOf(`${main}/sailings/${sailing}`)).toBe(404);
    const { items } = await app.json<{ items: { arrangement: string; target: string }[] }>(
      'GET',
      `/api/mocks/${mock.id}/exchanges`,
    );
    expect(items.map(({ arrangement }) => arrangement)).toEqual(['main', 'flat', 'main']);
    await app.json('PUT', flat, { settings: { version: 'v3' }, placements: { [OWNS]: 'flat' } });
    const third = beside.replace('v2', 'v3');
    expect(
      await eventually(
        async () => ((await statusOf(`${third}/sailings`)) === 200 ? true : null),
        'version 3',
      ),
    ).toBe(true);
    const sent = await app.send('POST', `/api/mocks/${mock.id}/messages`, {
      message: 'GET /api/v3/sailings HTTP/1.1',
      arrangement: 'flat',
    });
    expect(sent.status).toBe(202);
    const unknown = await app.send('POST', `/api/mocks/${mock.id}/messages`, {
      message: 'GET / HTTP/1.1',
      arrangement: 'other',
    });
    expect(unknown.status).toBe(400);
    const stopped = await app.json<{ running: boolean }>('POST', `/api/mocks/${mock.id}/stop`);
    expect(stopped.running).toBe(false);
    const again = await app.json<{ baseUrls: object }>('POST', `/api/mocks/${mock.id}/start`);
    expect(again.baseUrls).toEqual({ main, flat: third });
    expect((await app.send('DELETE', flat)).status).toBe(409);
  });

  test('the published document is read in YAML too', async () => {
    const { id } = await app.createDesign(TEXT);
    const path = `/api/designs/${id}/arrangements/main/openapi`;
    const yaml = await app.send('GET', `${path}.yaml`);
    expect(yaml.headers.get('content-type')).toMatch(/^application\/yaml/);
    expect(parse(await yaml.text())).toEqual(await app.json('GET', `${path}.json`));
  });

  test("operations of one's own are saved, read and served", async () => {
    const { id } = await app.createDesign(TEXT);
    const path = `/api/designs/${id}/arrangements/main`;
    const customOperations = [
      {
        id: 'c1',
        name: 'firstTwo',
        entity: 'Route',
        effect: { kind: 'query', filters: [], order: [{ member: 'Route.name', descending: true }], limit: 2 },
      },
    ];
    await app.json('PUT', path, { settings: {}, customOperations });
    expect(await app.json('GET', path)).toMatchObject({ customOperations });
    expect(await pathsOf(id, 'main')).toContain('/routes/first-two');
    const wrong = await app.send('PUT', path, {
      settings: {},
      customOperations: [{ id: 'c 1', name: 'A', entity: '', effect: { kind: 'script' } }],
    });
    expect(wrong.status).toBe(400);
    const { errors } = (await wrong.json()) as ProblemBody;
    expect(errors?.map(({ pointer }) => pointer)).toEqual([
      '/customOperations/0/id',
      '/customOperations/0/name',
      '/customOperations/0/entity',
      '/customOperations/0/effect',
    ]);
  });

  test('changes that follow each other at once are all taken over', async () => {
    const { id } = await app.createDesign(TEXT);
    const mock = await app.createMock(id);
    const path = `/api/designs/${id}/arrangements/main`;
    for (let version = 2; version <= 9; version++)
      await app.json('PUT', path, { settings: { version: `v${version}` } });
    const last = `http://127.0.0.1:${mock.port}/api/v9/routes`;
    expect(await eventually(async () => ((await statusOf(last)) === 200 ? true : null), 'version 9')).toBe(
      true,
    );
  });

  test('an earlier state without the one that a mock serves is not restored', async () => {
    const { id } = await app.createDesign(TEXT);
    await app.json('PUT', `/api/designs/${id}/arrangements/flat`, { settings: {} });
    await app.json('POST', '/api/mocks', { design: id, arrangements: ['flat'] });
    expect((await app.send('POST', `/api/designs/${id}/revisions/1/restore`)).status).toBe(409);
  });

  test('one that nobody serves is removed; the last one stays', async () => {
    const { id } = await app.createDesign(TEXT);
    await app.json('PUT', `/api/designs/${id}/arrangements/other`, { settings: {} });
    const left = await app.json<DesignBody & { arrangements: unknown }>(
      'DELETE',
      `/api/designs/${id}/arrangements/main`,
    );
    expect(left.arrangements).toEqual([{ name: 'other' }]);
    expect((await app.send('DELETE', `/api/designs/${id}/arrangements/other`)).status).toBe(409);
    expect((await app.send('DELETE', `/api/designs/${id}/arrangements/main`)).status).toBe(404);
  });

  test('a name stands once', async () => {
    const { id } = await app.createDesign(TEXT);
    await app.json('PUT', `/api/designs/${id}/arrangements/other`, { settings: {} });
    const taken = await app.send('PUT', `/api/designs/${id}/arrangements/other/name`, { name: 'main' });
    expect(taken.status).toBe(409);
    const late = await app.send(
      'PUT',
      `/api/designs/${id}/arrangements/other/name`,
      { name: 'x' },
      { 'If-Match': '"1"' },
    );
    expect(late.status).toBe(412);
  });

  test.each<readonly [string, object, readonly string[]]>([
    ['a%2Fb', { settings: {} }, ['/name']],
    ['ok', {}, ['/settings']],
    ['ok', { settings: { depth: 0 }, placements: { x: 'top' } }, ['/settings/depth', '/placements/x']],
    ['ok', { settings: {}, resources: { Route: { depth: 1 } } }, ['/resources/Route/depth']],
    ['ok', { settings: {}, operations: { 'Route:list': 1 } }, ['/operations/Route:list']],
    ['ok', { settings: {}, more: 1 }, ['/more']],
  ])('%s with %j is refused with everything that is wrong', async (name, body, pointers) => {
    const { id } = await app.createDesign(TEXT);
    const answer = await app.send('PUT', `/api/designs/${id}/arrangements/${name}`, body);
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as ProblemBody).errors?.map(({ pointer }) => pointer)).toEqual(pointers);
  });

  test('settings of one resource and one operation reach the mock', async () => {
    const { id } = await app.createDesign(TEXT);
    await app.json('PUT', `/api/designs/${id}/arrangements/main`, {
      settings: {},
      resources: { Route: { pageSize: 2 } },
      operations: { 'Route:list': { unknownParameters: 'ignored' } },
    });
    const mock = await app.createMock(id, { counts: { Route: 5, Sailing: 20 } });
    const routes = (await (await fetch(`${mock.baseUrls.main}/routes?whatever=1`)).json()) as {
      items: unknown[];
    };
    expect(routes.items).toHaveLength(2);
    expect(await statusOf(`${mock.baseUrls.main}/routes/1/sailings?whatever=1`)).toBe(400);
  });
});

test('designs of an earlier version keep their arrangements and the settings of those', async () => {
  const schema = await createSchema();
  const options = databaseOptions(schema);
  const before = new DataSource({
    ...options,
    migrations: (options.migrations as (new () => object)[]).slice(0, 2),
  });
  await before.initialize();
  const id = '11111111-1111-4111-8111-111111111111';
  const old = JSON.stringify({ settings: {}, arrangements: { main: { depth: 1 } }, answered: [] });
  await before.query(
    `INSERT INTO designs (id, name, text, sound_text, identities, revision, created_at, changed_at, choices)
     VALUES (?, 'Old', ?, ?, '{}', 1, NOW(3), NOW(3), ?)`,
    [id, TEXT, TEXT, old],
  );
  await before.query("INSERT INTO arrangements (design_id, name) VALUES (?, 'main'), (?, 'mobile')", [
    id,
    id,
  ]);
  await before.destroy();
  const upgraded = await TestApp.start({ databaseUrl: schema });
  try {
    const design = await upgraded.json<{ choices: { arrangements: unknown } }>('GET', `/api/designs/${id}`);
    expect(design.choices.arrangements).toEqual([
      { ...plainArrangement('main'), settings: { depth: 1 } },
      plainArrangement('mobile'),
    ]);
    const contract = await upgraded.json<ContractBody>(
      'GET',
      `/api/designs/${id}/arrangements/main/contract`,
    );
    expect(contract.resources.map(({ path }) => path)).toContain('/sailings/{sailingId}');
  } finally {
    await upgraded.close();
  }
});

test('what is decided about members called as something of every object stays', async () => {
  const { id } = await app.createDesign(
    'entity Constructor\n  constructor: text\n  toString: text\n  hasOwnProperty: choice(valueOf, other), default other\n',
  );
  const path = `/api/designs/${id}/arrangements/main`;
  const exposures = {
    Constructor: {
      'Constructor.constructor': { out: 'no' },
      'Constructor.toString': { sort: 'no' },
    },
  };
  const words = { Constructor: 'makers' };
  const saved = await app.send('PUT', path, { settings: {}, exposures, words });
  expect(saved.status).toBe(200);
  const { exposures: kept, words: keptWords } = await app.json<{ exposures: object; words: object }>(
    'GET',
    path,
  );
  expect([kept, keptWords]).toEqual([exposures, words]);
  const contract = await app.json<{ shapes: { name: string; members: { name: string }[] }[] }>(
    'GET',
    `${path}/contract`,
  );
  const item = contract.shapes.find(({ name }) => name === 'Constructor');
  expect(item?.members.map(({ name }) => name)).toEqual(['id', 'toString', 'hasOwnProperty', 'links']);
  const shares = { 'Constructor.hasOwnProperty': { valueOf: 1 } };
  const mock = await app.createMock(id, { counts: { Constructor: 5 }, shares });
  const { items } = (await (await fetch(`${mock.baseUrls.main}/makers`)).json()) as {
    items: { hasOwnProperty: string }[];
  };
  expect(items.map((one) => one.hasOwnProperty)).toEqual(Array.from({ length: 5 }, () => 'valueOf'));
});
