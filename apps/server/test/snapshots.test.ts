import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { sendJson } from './support/server.js';

const TEXT = `entity Route
  name: text(1..60), required, unique

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

interface Started {
  readonly design: string;
  readonly base: string;
  readonly path: string;
}

async function started(): Promise<Started> {
  const { id } = await app.createDesign(TEXT);
  const mock = await app.json<MockBody>('POST', '/api/mocks', {
    design: id,
    arrangements: ['main'],
    counts: { Route: 2, Sailing: 2 },
  });
  return { design: id, base: mock.baseUrls.main, path: `/api/mocks/${mock.id}` };
}

const read = async (url: string): Promise<{ status: number; tag: string | null; body: unknown }> => {
  const response = await fetch(url);
  return { status: response.status, tag: response.headers.get('etag'), body: await response.json() };
};

describe('undo', () => {
  test('takes the latest writes back one after the other, each as a new write', async () => {
    const { base, path } = await started();
    const before = await read(`${base}/routes/1`);
    await sendJson(`${base}/routes/1`, 'PATCH', { name: 'Changed' });
    expect((await sendJson(`${base}/routes/1`, 'DELETE')).status).toBe(204);
    expect((await read(`${base}/routes/1/sailings`)).status).toBe(404);
    await app.json('POST', `${path}/undo`);
    expect(await read(`${base}/routes/1`)).toMatchObject({ status: 200, body: { name: 'Changed' } });
    await app.json('POST', `${path}/undo`);
    const after = await read(`${base}/routes/1`);
    expect(after.body).toEqual(before.body);
    expect(after.tag).not.toBe(before.tag);
    expect((await app.send('POST', `${path}/undo`)).status).toBe(409);
  });
});

describe('snapshots', () => {
  test('bring records back as they were, under tags nobody had', async () => {
    const { base, path } = await started();
    const first = await app.send('POST', `${path}/snapshots`, { name: 'fresh' });
    expect([first.status, first.headers.get('location')]).toEqual([201, `${path}/snapshots/fresh`]);
    const before = await read(`${base}/routes`);
    const one = await read(`${base}/routes/1`);
    expect((await sendJson(`${base}/routes/1`, 'DELETE')).status).toBe(204);
    const made = (await (await sendJson(`${base}/routes`, 'POST', { name: 'Later' })).json()) as {
      id: number;
    };
    expect((await app.send('POST', `${path}/snapshots`, { name: 'later' })).status).toBe(201);
    expect((await app.send('POST', `${path}/snapshots`, { name: 'later' })).status).toBe(200);
    await app.json('POST', `${path}/snapshots/fresh/restore`);
    expect((await read(`${base}/routes`)).body).toEqual(before.body);
    const again = await read(`${base}/routes/1`);
    expect([again.body, again.tag === one.tag]).toEqual([one.body, false]);
    const next = (await (await sendJson(`${base}/routes`, 'POST', { name: 'Next' })).json()) as {
      id: number;
    };
    expect(next.id).toBeGreaterThan(made.id);
    const { items } = await app.json<{ items: { name: string; records: number }[] }>(
      'GET',
      `${path}/snapshots`,
    );
    expect(items.map(({ name }) => name).sort()).toEqual(['fresh', 'later']);
    expect((await app.send('DELETE', `${path}/snapshots/later`)).status).toBe(204);
    expect((await app.send('POST', `${path}/snapshots/later/restore`)).status).toBe(404);
    expect((await app.send('POST', `${path}/undo`)).status).toBe(200);
    expect((await app.send('POST', `${path}/undo`)).status).toBe(409);
  });

  test('are refused where the model has no place for them any more', async () => {
    const { design, path } = await started();
    await app.json('POST', `${path}/snapshots`, { name: 'full' });
    const text = TEXT.replace('  berth: text(1..4)\n', '');
    await app.json('PUT', `/api/designs/${design}/model`, { text });
    await app.json('POST', `${path}/reset`);
    const refused = await app.send('POST', `${path}/snapshots/full/restore`);
    expect(refused.status).toBe(409);
    expect(((await refused.json()) as ProblemBody).detail).toContain('Sailing.berth');
  });

  test.each(['', 'a/b', 'x'.repeat(61)])('have a name that can be read: %p', async (name) => {
    const { path } = await started();
    expect((await app.send('POST', `${path}/snapshots`, { name })).status).toBe(400);
  });
});

test('a reset gives the same records under tags nobody had', async () => {
  const { base, path } = await started();
  const before = await read(`${base}/routes/1`);
  await app.json('POST', `${path}/reset`);
  const after = await read(`${base}/routes/1`);
  expect([after.body, after.tag === before.tag]).toEqual([before.body, false]);
});

describe('trouble on purpose', () => {
  test('holds answers back, fails and cuts connections as it was told, and changes nothing', async () => {
    const { base, path } = await started();
    const tell = (items: readonly object[]): Promise<Response> =>
      app.send('PUT', `${path}/faults`, { seed: 7, items });
    expect((await tell([{ operation: 'createRoute', failures: [{ status: 503, rate: 1 }] }])).status).toBe(
      200,
    );
    const failed = await sendJson(`${base}/routes`, 'POST', { name: 'Never' });
    expect([failed.status, failed.headers.get('retry-after')]).toEqual([503, '1']);
    expect(await read(`${base}/routes`)).toMatchObject({ status: 200, body: { page: { totalItems: 2 } } });
    await tell([{ drop: 1 }]);
    await expect(fetch(`${base}/routes`)).rejects.toThrow('fetch failed');
    await tell([{ latency: { kind: 'fixed', ms: 120 } }]);
    const begun = performance.now();
    expect((await read(`${base}/routes`)).status).toBe(200);
    expect(performance.now() - begun).toBeGreaterThanOrEqual(110);
    expect(await app.json('GET', `${path}/faults`)).toMatchObject({ items: [{ latency: { ms: 120 } }] });
    await tell([{ operation: 'listRoutes', bytesPerSecond: 1_000 }]);
    const slow = performance.now();
    const page = await read(`${base}/routes`);
    expect(page).toMatchObject({ status: 200, body: { page: { totalItems: 2 } } });
    const atLeast = JSON.stringify(page.body).length - 100;
    expect(performance.now() - slow).toBeGreaterThanOrEqual(atLeast);
    expect(await app.json('GET', path)).toMatchObject({ faults: 1 });
  });

  test('is the same again from the same number', async () => {
    const { base, path } = await started();
    const run = async (): Promise<number[]> => {
      const items = [{ failures: [{ status: 500, rate: 0.5 }] }];
      await app.json('PUT', `${path}/faults`, { seed: 3, items });
      const statuses: number[] = [];
      for (let turn = 0; turn < 12; turn++) statuses.push((await fetch(`${base}/routes`)).status);
      return statuses;
    };
    const first = await run();
    expect(new Set(first)).toEqual(new Set([200, 500]));
    expect(await run()).toEqual(first);
  });

  test.each<readonly [object, string]>([
    [{ drop: 2 }, '/items/0/drop'],
    [{ failures: [{ status: 418, rate: 1 }] }, '/items/0/failures/0/status'],
    [{ latency: { kind: 'uniform', from: 1 } }, '/items/0/latency/to'],
    [{ latency: { kind: 'slow' } }, '/items/0/latency/kind'],
  ])('is refused where it does not fit: %j', async (item, pointer) => {
    const { path } = await started();
    const answer = await app.send('PUT', `${path}/faults`, { seed: 1, items: [item] });
    expect(answer.status).toBe(400);
    expect(((await answer.json()) as ProblemBody).errors?.map((error) => error.pointer)).toContain(pointer);
  });
});
