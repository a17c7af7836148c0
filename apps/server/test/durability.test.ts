import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { DesignBody, MockBody } from './support/app.js';
import { createSchema, dropSchema } from './support/database.js';
import { OwnDatabase } from './support/ownDatabase.js';
import { ROUTES } from './support/models.js';
import { eventually, sendJson, ServerProcess } from './support/server.js';

/** How often the server, and then the database, is killed; `ISOMEROS_KILL_ROUNDS` asks for more. */
const asked = process.env['ISOMEROS_KILL_ROUNDS'];
const ROUNDS = Number(asked ?? 2);
const DATABASE_ROUNDS = Number(asked ?? 1);

const TIMEOUT_MS = 240_000 + ROUNDS * 15_000;

let schema: string;
let server: ServerProcess | null = null;
beforeEach(async () => {
  schema = await createSchema();
});
afterEach(async () => {
  await server?.end('SIGKILL');
  await dropSchema(schema);
});

async function startMock(running: ServerProcess): Promise<MockBody> {
  const design = (await (
    await running.post('/api/designs', { source: { format: 'notation', text: ROUTES } })
  ).json()) as DesignBody;
  const response = await running.post('/api/mocks', {
    design: design.id,
    arrangements: ['main'],
    counts: { Route: 3 },
  });
  return (await response.json()) as MockBody;
}

/** Sends writes one after another until the server goes, and notes what was acknowledged. */
async function writeUntilGone(
  base: string,
  writer: number,
  acknowledged: Record<string, unknown>[],
): Promise<void> {
  for (let index = 0; ; index++) {
    try {
      const response = await sendJson(`${base}/routes`, 'POST', { name: `Route ${writer}-${index}` });
      if (response.status === 201) acknowledged.push((await response.json()) as Record<string, unknown>);
    } catch {
      return;
    }
  }
}

describe('what was acknowledged', () => {
  test(
    'is all there, with the same ids, after the server is killed between writes',
    async () => {
      server = await ServerProcess.start(schema);
      const mock = await startMock(server);
      const base = mock.baseUrls.main;
      for (let round = 0; round < ROUNDS; round++) {
        const path = `/api/mocks/${mock.id}/exchanges`;
        // What is written down from here on is of this round: reads of the one before may still wait to be.
        expect((await sendJson(`${server.url}${path}`, 'DELETE')).status).toBe(204);
        const acknowledged: Record<string, unknown>[] = [];
        const writers = Array.from({ length: 8 }, (_, writer) =>
          writeUntilGone(base, round * 100 + writer, acknowledged),
        );
        const running = server;
        // The journal is being written to the database meanwhile.
        await eventually(async () => {
          const { journal } = (await running.get(`/api/mocks/${mock.id}`)) as MockBody;
          return acknowledged.length >= 100 && journal.bytes > 0 ? true : null;
        }, 'writes to be acknowledged and written down');
        await server.end('SIGKILL');
        await Promise.all(writers);
        server = await ServerProcess.start(schema);
        const again = (await server.get(`/api/mocks/${mock.id}`)) as MockBody;
        expect(again).toMatchObject({ running: true, port: mock.port });
        const { items } = (await server.get(path)) as { items: { number: number; operation: string }[] };
        expect(items[0]).toMatchObject({ number: again.exchanges, operation: 'createRoute' });
        expect(await server.get(`${path}/${again.exchanges}`)).toMatchObject({ number: again.exchanges });
        for (const record of acknowledged) {
          const read = await fetch(`${base}/routes/${String(record['id'])}`);
          expect(await read.json()).toEqual(record);
        }
        const ids = new Set(acknowledged.map(({ id }) => id));
        expect(ids.size).toBe(acknowledged.length);
        const next = (await (await sendJson(`${base}/routes`, 'POST', { name: `Next ${round}` })).json()) as {
          id: number;
        };
        expect(Math.max(...acknowledged.map(({ id }) => Number(id)))).toBeLessThan(next.id);
      }
    },
    TIMEOUT_MS,
  );

  test('keeps answers to requests that are sent again, tags and cursors, over a kill, until a reset', async () => {
    server = await ServerProcess.start(schema);
    const design = (await (
      await server.post('/api/designs', { source: { format: 'notation', text: ROUTES } })
    ).json()) as DesignBody;
    const settings = { pageStyle: 'cursor' };
    await sendJson(`${server.url}/api/designs/${design.id}/arrangements/main`, 'PUT', { settings });
    const made = await server.post('/api/mocks', {
      design: design.id,
      arrangements: ['main'],
      counts: { Route: 3 },
    });
    const { id, baseUrls } = (await made.json()) as MockBody;
    const send = (name: string): Promise<Response> =>
      fetch(`${baseUrls.main}/routes`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', 'Idempotency-Key': '"once"' },
        body: JSON.stringify({ name }),
      });
    const first = await send('Route A');
    const answer = { status: first.status, etag: first.headers.get('etag'), body: await first.text() };
    expect(answer.status).toBe(201);
    const page = (await (await fetch(`${baseUrls.main}/routes?limit=2`)).json()) as {
      page: { next: string };
    };
    await server.end('SIGKILL');
    server = await ServerProcess.start(schema);
    const again = await send('Route A');
    expect({ status: again.status, etag: again.headers.get('etag'), body: await again.text() }).toEqual(
      answer,
    );
    expect((await send('Route B')).status).toBe(422);
    const next = await fetch(`${baseUrls.main}/routes?limit=2&cursor=${page.page.next}`);
    const { items } = (await next.json()) as { items: { id: number; name: string }[] };
    expect(items.map(({ id }) => id)).toEqual([3, 4]);
    const tag = answer.etag ?? '';
    const unchanged = await fetch(`${baseUrls.main}/routes/4`, { headers: { 'If-None-Match': tag } });
    expect(unchanged.status).toBe(304);
    await server.post(`/api/mocks/${id}/reset`);
    await server.end('SIGKILL');
    server = await ServerProcess.start(schema);
    const anew = await send('Route B');
    expect([anew.status, anew.headers.get('etag') === tag]).toEqual([201, false]);
  });

  test('records taken in are all there after the server is killed', async () => {
    server = await ServerProcess.start(schema);
    const mock = await startMock(server);
    const Route = Array.from({ length: 1_200 }, (_, index) => ({ id: index + 1, name: `Route ${index}` }));
    const taken = await server.post(`/api/mocks/${mock.id}/records?mode=replace`, { Route });
    expect(taken.status).toBe(200);
    await server.end('SIGKILL');
    server = await ServerProcess.start(schema);
    expect(await server.get(`/api/mocks/${mock.id}/records`)).toEqual({ Route, Sailing: [] });
  });

  test('a mock that was stopped stays stopped over a restart, one that ran runs again', async () => {
    server = await ServerProcess.start(schema);
    const [first, second] = [await startMock(server), await startMock(server)];
    await server.post(`/api/mocks/${first.id}/stop`);
    await server.end('SIGTERM');
    server = await ServerProcess.start(schema);
    expect(await server.get(`/api/mocks/${first.id}`)).toMatchObject({ running: false });
    expect(await server.get(`/api/mocks/${second.id}`)).toMatchObject({ running: true, port: second.port });
    expect((await fetch(`${second.baseUrls.main}/routes`)).status).toBe(200);
  });

  test('a second server that takes the records over fences the first one off', async () => {
    server = await ServerProcess.start(schema);
    const mock = await startMock(server);
    const other = await ServerProcess.start(schema);
    try {
      const refused = await sendJson(`${mock.baseUrls.main}/routes`, 'POST', { name: 'From the first' });
      expect(refused.status).toBe(503);
      expect(refused.headers.get('retry-after')).toBe('1');
    } finally {
      await other.end('SIGTERM');
    }
  });
});

/** Writes until told to stop; what was acknowledged, removals too. */
async function writeWhile(
  base: string,
  writer: string,
  goesOn: () => boolean,
  kept: Map<number, Record<string, unknown>>,
  removed: Set<number>,
): Promise<void> {
  for (let index = 0; goesOn(); index++) {
    const response = await sendJson(`${base}/routes`, 'POST', { name: `${writer}-${index}` });
    if (response.status !== 201) {
      expect([response.status, response.headers.get('retry-after')]).toEqual([503, '1']);
      continue;
    }
    const record = (await response.json()) as { id: number };
    kept.set(record.id, record);
    for (const berth of ['1A', '1B'])
      await sendJson(`${base}/routes/${record.id}/sailings`, 'POST', { berth });
    if (index % 3 !== 0) continue;
    const gone = await fetch(`${base}/routes/${record.id}`, { method: 'DELETE' });
    kept.delete(record.id);
    if (gone.status === 204) removed.add(record.id);
  }
}

describe('the database', () => {
  test(
    'can be killed under load: reads go on, writes wait their turn, and nothing acknowledged is lost',
    async () => {
      const own = await OwnDatabase.start();
      try {
        server = await ServerProcess.start(own.url);
        const { baseUrls } = await startMock(server);
        const base = baseUrls.main;
        for (let round = 0; round < DATABASE_ROUNDS; round++) {
          const kept = new Map<number, Record<string, unknown>>();
          const removed = new Set<number>();
          let goesOn = true;
          const writers = Array.from({ length: 6 }, (_, writer) =>
            writeWhile(base, `Round ${round}, ${writer}`, () => goesOn, kept, removed),
          );
          await eventually(() => Promise.resolve(kept.size >= 40 ? true : null), 'writes to be acknowledged');
          await own.kill();
          expect((await fetch(`${base}/routes`)).status).toBe(200);
          await own.startAgain();
          const before = kept.size;
          await eventually(() => Promise.resolve(kept.size >= before + 10 ? true : null), 'writes to go on');
          goesOn = false;
          await Promise.all(writers);
          await server.end('SIGKILL');
          server = await ServerProcess.start(own.url);
          for (const [id, record] of kept)
            expect(await (await fetch(`${base}/routes/${id}`)).json()).toEqual(record);
          for (const id of removed) {
            expect((await fetch(`${base}/routes/${id}`)).status).toBe(404);
            expect((await fetch(`${base}/routes/${id}/sailings`)).status).toBe(404);
          }
        }
        await server.end('SIGTERM');
      } finally {
        await own.remove();
      }
    },
    TIMEOUT_MS,
  );
});
