import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Items, MockCredential } from '@isomeros/api';
import { connect } from 'node:net';
import { TestApp, type DesignBody, type MockBody, type ProblemBody } from './support/app.js';
import { ROUTES } from './support/models.js';
import { eventually, sendJson } from './support/server.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

async function startMock(
  text = ROUTES,
  more: object = {},
): Promise<{ design: DesignBody; mock: MockBody; base: string }> {
  const design = await app.createDesign(text);
  const mock = await app.createMock(design.id, more);
  return { design, mock, base: mock.baseUrls.main };
}

/** Sends bytes to a port and reads until the connection closes. */
function raw(port: number, bytes: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(bytes));
    let answer = '';
    socket.on('data', (part: Buffer) => (answer += part.toString()));
    socket.on('close', () => resolve(answer));
    socket.on('error', reject);
  });
}

describe('a mock', () => {
  test('serves the contract on a loopback port of its own, from seeded records', async () => {
    const { mock, base } = await startMock(ROUTES, { counts: { Route: 7 } });
    expect(base).toBe(`http://127.0.0.1:${mock.port}/api/v1`);
    const { page } = (await (await fetch(`${base}/routes`)).json()) as { page: { totalItems: number } };
    expect(page.totalItems).toBe(7);
    const created = await sendJson(`${base}/routes`, 'POST', { name: 'A new one' });
    expect([created.status, created.headers.get('location')]).toEqual([201, '/api/v1/routes/8']);
    expect(await (await fetch(`${base}/routes/8`)).json()).toMatchObject({ id: 8, name: 'A new one' });
  });

  test('stops, starts on the same port with the same records, and resets to its seed', async () => {
    const { mock, base } = await startMock();
    await sendJson(`${base}/routes`, 'POST', { name: 'Kept' });
    const stopped = await app.json<MockBody>('POST', `/api/mocks/${mock.id}/stop`);
    expect(stopped.running).toBe(false);
    await expect(fetch(`${base}/routes`)).rejects.toThrow();
    const started = await app.json<MockBody>('POST', `/api/mocks/${mock.id}/start`);
    expect(started.port).toBe(mock.port);
    expect(started.records).toBe(mock.records + 1);
    const reset = await app.json<MockBody>('POST', `/api/mocks/${mock.id}/reset`);
    expect(reset.records).toBe(mock.records);
    expect((await app.send('DELETE', `/api/mocks/${mock.id}`)).status).toBe(204);
    expect((await app.send('GET', `/api/mocks/${mock.id}`)).status).toBe(404);
  });

  test('takes the port that is asked for, or says that it is in use', async () => {
    const { design, mock } = await startMock();
    const taken = await app.send('POST', '/api/mocks', {
      design: design.id,
      arrangements: ['main'],
      port: mock.port,
    });
    expect(taken.status).toBe(409);
    expect(((await taken.json()) as ProblemBody).detail).toContain(String(mock.port));
    const second = await app.createMock(design.id);
    expect(second.port).not.toBe(mock.port);
  });

  test.each([
    [{ arrangements: ['main'] }, ['/design']],
    [{ design: 'x', arrangements: 'main' }, ['/arrangements', '/design']],
    [{ arrangements: ['main'], port: 80, seed: -1 }, ['/design', '/port', '/seed']],
  ])('refuses %j', async (body, pointers) => {
    const response = await app.send('POST', '/api/mocks', body);
    expect(response.status).toBe(400);
    expect(((await response.json()) as ProblemBody).errors?.map(({ pointer }) => pointer).sort()).toEqual(
      pointers,
    );
  });

  test('refuses counts of what is not there', async () => {
    const design = await app.createDesign(ROUTES);
    const response = await app.send('POST', '/api/mocks', {
      design: design.id,
      arrangements: ['main'],
      counts: { Boat: 1, Route: -1 },
    });
    expect(((await response.json()) as ProblemBody).errors?.map(({ pointer }) => pointer)).toEqual([
      '/counts/Boat',
      '/counts/Route',
    ]);
  });

  test('tells whom it knows, and whoever sends that is let in', async () => {
    const { design, mock, base } = await startMock();
    const known = (): Promise<Items<MockCredential>> =>
      app.json<Items<MockCredential>>('GET', `/api/mocks/${mock.id}/credentials`);
    expect((await known()).items).toEqual([]);
    await app.json('PUT', `/api/designs/${design.id}/choices`, {
      settings: { security: ['basic', 'api key'] },
      answered: [],
    });
    await eventually(
      async () => ((await fetch(`${base}/routes`)).status === 401 ? true : null),
      'the mock to ask who sends',
    );
    const [who] = (await known()).items;
    expect(who).toMatchObject({ arrangement: 'main', release: null, name: 'user', roles: [] });
    expect(who?.headers.map(({ name }) => name)).toEqual(['Authorization', 'X-API-Key']);
    for (const { name, value } of who?.headers ?? [])
      expect((await fetch(`${base}/routes`, { headers: { [name]: value } })).status).toBe(200);
  });

  test('goes when its design goes', async () => {
    const { design, mock, base } = await startMock();
    await app.send('DELETE', `/api/designs/${design.id}`);
    expect((await app.send('GET', `/api/mocks/${mock.id}`)).status).toBe(404);
    await expect(fetch(`${base}/routes`)).rejects.toThrow();
  });
});

describe('what comes over the wire', () => {
  test('many writes at once are all there, and unique stays unique', async () => {
    const { base } = await startMock(ROUTES, { counts: { Route: 0 } });
    const names = Array.from({ length: 120 }, (_, index) => `Route ${index % 60}`);
    const statuses = await Promise.all(
      names.map(async (name) => (await sendJson(`${base}/routes`, 'POST', { name })).status),
    );
    expect(statuses.filter((status) => status === 201)).toHaveLength(60);
    expect(statuses.filter((status) => status === 409)).toHaveLength(60);
    const { page } = (await (await fetch(`${base}/routes`)).json()) as { page: { totalItems: number } };
    expect(page.totalItems).toBe(60);
  });

  test.each([
    ['GARBAGE\r\n\r\n', 400],
    ['BREW /api/v1 HTTP/1.1\r\nHost: localhost\r\n\r\n', 501],
    ['GET /api/v1 HTTP/1.1\r\nConnection: close\r\n\r\n', 400],
    ['GET /api/v1 HTTP/1.1\r\nHost: front.example\r\nConnection: close\r\n\r\n', 200],
    [`GET /${'x'.repeat(9_000)} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n`, 414],
    [`GET / HTTP/1.1\r\nHost: localhost\r\nX: ${'x'.repeat(40_000)}\r\n\r\n`, 431],
    ['GET http://localhost/api/v1 HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n', 200],
    [
      'POST /api/v1/routes HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 2\r\nConnection: close\r\n\r\n\xff\xfe',
      400,
    ],
  ])('%j is answered %i as JSON', async (bytes, status) => {
    const { mock } = await startMock();
    const answer = await raw(mock.port, bytes);
    expect(answer).toMatch(new RegExp(`^HTTP/1\\.1 ${status} `));
    expect(answer.toLowerCase()).toContain(
      status === 200 ? 'content-type: application/json' : 'content-type: application/problem+json',
    );
    await app.send('DELETE', `/api/mocks/${mock.id}`);
  });

  test('a body over the limit is 413, whoever sends it', async () => {
    const { base } = await startMock();
    const response = await sendJson(`${base}/routes`, 'POST', { name: 'x'.repeat(1_100_000) });
    expect(response.status).toBe(413);
  });

  test('scripts of any origin may read, and preflights are answered', async () => {
    const { base } = await startMock();
    const read = await fetch(`${base}/routes`, { headers: { Origin: 'http://localhost:3000' } });
    expect(read.headers.get('access-control-allow-origin')).toBe('*');
    const preflight = await fetch(`${base}/routes/1`, {
      method: 'OPTIONS',
      headers: {
        Origin: 'http://localhost:3000',
        'Access-Control-Request-Method': 'PATCH',
        'Access-Control-Request-Headers': 'content-type',
      },
    });
    expect(preflight.status).toBe(204);
    expect(preflight.headers.get('access-control-allow-methods')).toContain('PATCH');
    expect(preflight.headers.get('access-control-allow-headers')).toBe('content-type');
  });

  test('the mock serves its description and a page for each kind of problem', async () => {
    const { base } = await startMock();
    const document = (await (await fetch(`${base}/-/openapi.json`)).json()) as { openapi: string };
    expect(document.openapi).toBe('3.1.1');
    const { type } = (await (await fetch(`${base}/nowhere`)).json()) as ProblemBody;
    expect((await fetch(new URL(type, base))).status).toBe(200);
  });
});

describe('a model that changes while its mock runs', () => {
  test('reaches the mock when its records agree', async () => {
    const { design, mock, base } = await startMock();
    await app.json('PUT', `/api/designs/${design.id}/model`, {
      text: ROUTES.replace('entity Sailing', 'entity Meal\n  name: text\n\nentity Sailing'),
    });
    await eventually(
      async () => ((await fetch(`${base}/meals`)).status === 200 ? true : null),
      'the new entity to be served',
    );
    const renamed = ROUTES.replace('name:', 'title:').replace(
      'entity Sailing',
      'entity Meal\n  name: text\n\nentity Sailing',
    );
    await app.json('PUT', `/api/designs/${design.id}/model`, { text: renamed });
    const route = await eventually(async () => {
      const read = (await (await fetch(`${base}/routes/1`)).json()) as Record<string, unknown>;
      return 'title' in read ? read : null;
    }, 'the new name');
    expect(route['title']).toEqual(expect.any(String));
    expect((await app.json<MockBody>('GET', `/api/mocks/${mock.id}`)).obstacles).toEqual([]);
  });

  test('waits when a record would lose something, until it is reset', async () => {
    const { design, mock, base } = await startMock();
    await app.json('PUT', `/api/designs/${design.id}/model`, {
      text: ROUTES.replace('text(1..60)', 'text(1..2)'),
    });
    const waiting = await eventually(async () => {
      const read = await app.json<MockBody>('GET', `/api/mocks/${mock.id}`);
      return read.obstacles.length > 0 ? read : null;
    }, 'the obstacles');
    expect(waiting.servesRevision).toBe(1);
    expect((await sendJson(`${base}/routes`, 'POST', { name: 'Still long enough' })).status).toBe(201);
    const reset = await app.json<MockBody>('POST', `/api/mocks/${mock.id}/reset`);
    expect(reset).toMatchObject({ obstacles: [], servesRevision: 2 });
    expect((await sendJson(`${base}/routes`, 'POST', { name: 'Too long now' })).status).toBe(400);
  });

  test('never reaches it with errors', async () => {
    const { design, mock, base } = await startMock();
    await app.json('PUT', `/api/designs/${design.id}/model`, { text: `${ROUTES}nonsense\n` });
    expect((await fetch(`${base}/routes`)).status).toBe(200);
    expect((await app.json<MockBody>('GET', `/api/mocks/${mock.id}`)).obstacles).toEqual([]);
  });
});
