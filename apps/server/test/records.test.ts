import type { SeedPreview } from '@isomeros/core/records';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { sendJson } from './support/server.js';

const TEXT = `entity Route
  code: text(2..6), key
  name: text(1..60), required
  state: choice(open, closed), default open
    close: open -> closed
  pin: text(4..8), write-only

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
each Route pairs with many Route as detours, back as detourOf
`;

const RECORDS = {
  Route: [
    { code: 'KS', name: 'Over', state: 'open', pin: '1234' },
    { code: 'TV', name: 'Round; the "long" way', state: 'closed', pin: null },
  ],
  Sailing: [{ id: 900, berth: 'B2', route: 'KS' }],
  'Route detours': [{ detourOf: 'KS', detour: 'TV' }],
};

interface Taken {
  readonly done: boolean;
  readonly types: readonly unknown[];
}

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

interface Started {
  readonly base: string;
  readonly path: string;
}

async function started(more: Readonly<Record<string, unknown>> = {}): Promise<Started> {
  const { id } = await app.createDesign(TEXT);
  const mock = await app.json<MockBody>('POST', '/api/mocks', {
    design: id,
    arrangements: ['main'],
    ...more,
  });
  return { base: mock.baseUrls.main, path: `/api/mocks/${mock.id}` };
}

const get = async (path: string, accept = '*/*'): Promise<{ status: number; type: string; text: string }> => {
  const response = await fetch(`${app.url}${path}`, { headers: { accept } });
  return {
    status: response.status,
    type: response.headers.get('content-type') ?? '',
    text: await response.text(),
  };
};

const postCsv = (path: string, body: string): Promise<Response> =>
  fetch(`${app.url}${path}`, { method: 'POST', headers: { 'content-type': 'text/csv' }, body });

describe('records out and in', () => {
  test('a document replaces all, is served, and comes out as it went in', async () => {
    const { base, path } = await started();
    const taken = await app.json<Taken>('POST', `${path}/records?mode=replace`, RECORDS);
    expect(taken).toMatchObject({
      done: true,
      types: [
        { type: 'Route', added: 2, removed: 12 },
        { type: 'Sailing', added: 1 },
        { type: 'Route detours', added: 1 },
      ],
    });
    expect(await (await fetch(`${base}/routes/TV`)).json()).toMatchObject({ name: 'Round; the "long" way' });
    expect((await fetch(`${base}/routes/KS/sailings/900`)).status).toBe(200);
    expect(JSON.parse((await get(`${path}/records?secrets=include`)).text)).toEqual(RECORDS);
    expect((await get(`${path}/records`)).text).not.toContain('1234');
    const made = await sendJson(`${base}/routes/KS/sailings`, 'POST', { berth: 'A' });
    expect(await made.json()).toMatchObject({ id: 901 });
  });

  test('what was taken in can be taken back', async () => {
    const { base, path } = await started();
    await app.json('POST', `${path}/records?mode=replace`, RECORDS);
    await app.json('POST', `${path}/records`, { Route: [{ code: 'XX', name: 'New' }] });
    expect((await fetch(`${base}/routes/XX`)).status).toBe(200);
    await app.json('POST', `${path}/undo`);
    expect((await fetch(`${base}/routes/XX`)).status).toBe(404);
    expect(JSON.parse((await get(`${path}/records?secrets=include`)).text)).toEqual(RECORDS);
  });

  test('one kind goes out and in as comma-separated values', async () => {
    const { path } = await started();
    await app.json('POST', `${path}/records?mode=replace`, RECORDS);
    const { type, text } = await get(`${path}/records/Route`, 'text/csv');
    expect(type).toBe('text/csv; charset=utf-8; header=present');
    expect(text).toBe('code,name,state\r\nKS,Over,open\r\nTV,"Round; the ""long"" way",closed\r\n');
    const response = await postCsv(`${path}/records/Route`, text.replace('Over', '"Over, and back"'));
    expect(await response.json()).toEqual({
      done: true,
      types: [{ type: 'Route', added: 0, changed: 1, unchanged: 1, removed: 0 }],
    });
    const json = await get(`${path}/records/Route?secrets=include`, 'application/json');
    expect(JSON.parse(json.text)).toMatchObject([{ name: 'Over, and back', pin: '1234' }, {}]);
    expect((await get(`${path}/records/Route`, 'image/png')).status).toBe(406);
    expect((await get(`${path}/records/Rout`)).status).toBe(404);
    expect(await get(`${path}/records/Route?as=csv`, '*/*')).toMatchObject({ type, status: 200 });
    expect((await get(`${path}/records/Route?as=xml`)).status).toBe(400);
    expect(await app.json('GET', `${path}/record-types`)).toEqual({
      items: [
        { name: 'Route', records: 2, hasSecrets: true },
        { name: 'Sailing', records: 1, hasSecrets: false },
        { name: 'Route detours', records: 1, hasSecrets: false },
      ],
    });
  });

  test('nothing is taken in where something does not fit, and everything that does not is told', async () => {
    const { path } = await started();
    const before = (await get(`${path}/records`)).text;
    const response = await postCsv(`${path}/records/Sailing`, 'id,berth,route\n1,TOOLONG,KS\n2,A,ZZ\n');
    expect(response.status).toBe(400);
    const problem = (await response.json()) as ProblemBody;
    expect(problem.errors?.map(({ message }) => message)).toEqual([
      expect.stringMatching(/^Line 2: Expected text of 1 to 4 characters/) as unknown,
      expect.stringMatching(
        /^Line 2: Expected the route of a Route that is there; there is none with KS/,
      ) as unknown,
      expect.stringMatching(/^Line 3: .* there is none with ZZ/) as unknown,
    ]);
    const removal = await app.send('POST', `${path}/records?mode=replace`, { Route: [] });
    expect(removal.status).toBe(200);
    await app.json('POST', `${path}/undo`);
    expect(JSON.parse((await get(`${path}/records`)).text)).toEqual(JSON.parse(before));
  });

  test('a check says what would happen, and does nothing', async () => {
    const { path } = await started();
    const before = (await get(`${path}/records`)).text;
    const checked = await app.json<Taken>('POST', `${path}/records?mode=replace&check=only`, RECORDS);
    expect(checked).toMatchObject({ done: false, types: [{ added: 2, removed: 12 }, {}, {}] });
    expect((await get(`${path}/records`)).text).toBe(before);
  });

  test.each([
    ['mode=all', /Expected mode=merge or mode=replace/],
    ['check=yes', /Expected check=only/],
  ])('refuses the parameter %s', async (query, message) => {
    const { path } = await started();
    const response = await app.send('POST', `${path}/records?${query}`, {});
    expect(response.status).toBe(400);
    expect(((await response.json()) as ProblemBody).detail).toMatch(message);
  });

  test('refuses other media types, and comma-separated values of all kinds', async () => {
    const { path } = await started();
    const response = await postCsv(`${path}/records`, 'code\n');
    expect([response.status, response.headers.get('accept')]).toEqual([415, 'application/json']);
  });

  test('writes of others go on while many records are written out', async () => {
    const { base, path } = await started({ counts: { Route: 5_000, Sailing: 0 } });
    const out = get(`${path}/records/Route`);
    const written = await sendJson(`${base}/routes`, 'POST', { code: 'ZZZZ', name: 'Meanwhile' });
    expect(written.status).toBe(201);
    const records = JSON.parse((await out).text) as unknown[];
    expect([5_000, 5_001]).toContain(records.length);
  });
});

describe('what is wanted of seed records', () => {
  test('is followed when a mock is made, and by the next reset after it was told', async () => {
    const { path } = await started({
      counts: { Route: 10 },
      children: { Sailing: { least: 2, most: 2 } },
      shares: { 'Route.state': { closed: 1 } },
    });
    const read = async (): Promise<{ Route: { state: string }[]; Sailing: unknown[] }> =>
      JSON.parse((await get(`${path}/records`)).text) as { Route: { state: string }[]; Sailing: unknown[] };
    const first = await read();
    expect([first.Route.length, first.Sailing.length]).toEqual([10, 20]);
    expect(new Set(first.Route.map(({ state }) => state))).toEqual(new Set(['closed']));
    const told = await app.json('PUT', `${path}/seed-plan`, { seed: 5, counts: { Route: 3, Sailing: 1 } });
    expect(told).toEqual({
      seed: 5,
      initialRecords: false,
      counts: { Route: 3, Sailing: 1 },
      children: {},
      shares: {},
    });
    expect(await app.json('GET', `${path}/seed-plan`)).toEqual(told);
    const preview = await app.json<SeedPreview>('POST', `${path}/seed-preview`, told);
    expect(await read()).toEqual(first);
    await app.json('POST', `${path}/reset`);
    const then = await read();
    expect([then.Route.length, then.Sailing.length]).toEqual([3, 1]);
    // What is previewed is what comes.
    const [routes] = preview.types;
    expect([routes?.name, routes?.records]).toEqual(['Route', 3]);
    const at = routes?.columns.indexOf('state') ?? -1;
    expect(routes?.first.map(({ cells }) => cells[at])).toEqual(
      then.Route.map(({ state }) => ({ kind: 'value', value: state })),
    );
  });

  test('says what does not fit, each at its place', async () => {
    const { path } = await started();
    const response = await app.send('PUT', `${path}/seed-plan`, {
      counts: { Boat: 1, Route: 'many' },
      children: { Route: { least: 0, most: 1 }, Sailing: { least: 3 } },
      shares: { 'Route.state': { ajar: 1 } },
    });
    expect(response.status).toBe(400);
    const { errors } = (await response.json()) as ProblemBody;
    expect(errors?.map(({ pointer }) => pointer)).toEqual([
      '/counts/Route',
      '/children/Sailing',
      '/counts/Boat',
      '/children/Route',
      '/shares/Route.state/ajar',
    ]);
  });

  test('makes no more records than a mock holds', async () => {
    const { id } = await app.createDesign(TEXT);
    const response = await app.send('POST', '/api/mocks', {
      design: id,
      arrangements: ['main'],
      counts: { Route: 150 },
      children: { Sailing: { least: 9_000, most: 10_000 } },
    });
    expect(response.status).toBe(400);
    expect(((await response.json()) as ProblemBody).detail).toBe(
      'A mock holds at most 1000000 records; there would be more.',
    );
  });

  test('a hundred and fifty thousand of them are taken in while the mock goes on answering', async () => {
    const { base, path } = await started({ counts: { Route: 1, Sailing: 0 } });
    const count = 150_000;
    const lines = Array.from({ length: count }, (_, index) => `C${index.toString(36)},Route ${index}`);
    const state = { isDone: false };
    const taking = postCsv(`${path}/records/Route`, ['code,name', ...lines].join('\n')).finally(
      () => (state.isDone = true),
    );
    let longest = 0;
    while (!state.isDone) {
      const asked = performance.now();
      expect((await fetch(`${base}/routes?size=1`)).status).toBe(200);
      longest = Math.max(longest, performance.now() - asked);
    }
    expect(await (await taking).json()).toMatchObject({
      done: true,
      types: [{ type: 'Route', added: count }],
    });
    // Nobody waits for the whole of it, which takes some ten times as long.
    expect(longest).toBeLessThan(2_000);
    expect((await fetch(`${base}/routes/C${(count - 1).toString(36)}`)).status).toBe(200);
    await app.json('POST', `${path}/undo`);
    expect((await fetch(`${base}/routes/C1`)).status).toBe(404);
    expect((await sendJson(`${base}/routes`, 'POST', { code: 'C1', name: 'Again' })).status).toBe(201);
  });

  test('what is no JSON is told with its place, and nothing is taken in', async () => {
    const { path } = await started();
    const broken = await fetch(`${app.url}${path}/records/Route`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '[{"code":"KS","name":"A"},\n{"code":"TV" "name":"B"}]',
    });
    expect(broken.status).toBe(400);
    expect(((await broken.json()) as ProblemBody).errors?.[0]?.message).toContain('Line 2, column 14.');
  });
});
