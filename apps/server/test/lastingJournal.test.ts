import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { Exchange, ExchangeSummary, InspectedRecord, Mock } from '@isomeros/api';
import { createSchema, dropSchema } from './support/database.js';
import { TestApp, type MockBody } from './support/app.js';
import { ROUTES } from './support/models.js';
import { sendJson } from './support/server.js';

let app: TestApp;
let schema: string;
let mock: MockBody;
let base: string;
beforeAll(async () => {
  schema = await createSchema();
  app = await TestApp.start({ databaseUrl: schema });
});
beforeEach(async () => {
  const design = await app.createDesign(ROUTES);
  mock = await app.createMock(design.id);
  base = mock.baseUrls.main;
});
afterAll(async () => {
  await app.stop();
  await dropSchema(schema);
});

const restart = async (): Promise<void> => {
  await app.stop();
  app = await TestApp.start({ databaseUrl: schema });
};

const at = (path = ''): string => `/api/mocks/${mock.id}/exchanges${path}`;

const listed = async (query: Readonly<Record<string, string>> = {}): Promise<readonly ExchangeSummary[]> =>
  (await app.json<{ items: ExchangeSummary[] }>('GET', at(`?${new URLSearchParams(query).toString()}`)))
    .items;

const numbers = async (query: Readonly<Record<string, string>> = {}): Promise<readonly number[]> =>
  (await listed(query)).map(({ number }) => number);

/** Three exchanges: a change, a read by another client, and one that leads nowhere. */
async function exchanges(): Promise<void> {
  await sendJson(`${base}/routes/1`, 'PATCH', { name: 'Changed' }, { 'User-Agent': 'booking-web/2.1' });
  await fetch(`${base}/routes?size=2`, { headers: { 'User-Agent': 'curl/8' } });
  await fetch(`${base}/nowhere`, { headers: { 'User-Agent': 'curl/8' } });
}

describe('a journal', () => {
  test('is the same after a restart: its list, each exchange whole, versions of records; numbers go on', async () => {
    await exchanges();
    const before = await Promise.all([1, 2, 3].map((number) => app.json<Exchange>('GET', at(`/${number}`))));
    const record = `/api/mocks/${mock.id}/record-types/Route/table/1`;
    const { versions } = await app.json<InspectedRecord>('GET', record);
    await restart();
    expect(await numbers()).toEqual([3, 2, 1]);
    const after = await Promise.all([1, 2, 3].map((number) => app.json<Exchange>('GET', at(`/${number}`))));
    expect(after).toEqual(before);
    expect((await app.json<InspectedRecord>('GET', record)).versions).toEqual(versions);
    expect(versions).toEqual([
      expect.objectContaining({ exchange: 1, operation: 'changeRoute', changed: ['name'] }),
    ]);
    await fetch(`${(await app.json<Mock>('GET', `/api/mocks/${mock.id}`)).baseUrls['main']}/routes/1`);
    expect(await numbers()).toEqual([4, 3, 2, 1]);
  });

  test.each<readonly [Readonly<Record<string, string>>, readonly number[]]>([
    [{ operation: 'listRoutes' }, [2]],
    [{ status: '4xx' }, [3]],
    [{ status: '2xx' }, [2, 1]],
    [{ path: '/routes' }, [2, 1]],
    [{ client: 'curl' }, [3, 2]],
    [{ client: 'curl', status: '2xx' }, [2]],
    [{ record: '1' }, [1]],
    [{ record: '2' }, []],
    [{ operation: 'constructor' }, []],
  ])('is looked through by %j, in memory and where it is stored', async (query, found) => {
    await exchanges();
    expect(await numbers(query)).toEqual(found);
    await restart();
    expect(await numbers(query)).toEqual(found);
  });

  test('is read page by page, and tells what is misread', async () => {
    await exchanges();
    await restart();
    const first = await app.send('GET', at('?limit=2'));
    const next = /<([^>]+)>/.exec(first.headers.get('Link') ?? '')?.[1] ?? '';
    const { items } = await app.json<{ items: ExchangeSummary[] }>('GET', next);
    expect(items.map(({ number }) => number)).toEqual([1]);
    for (const query of ['?status=all', '?record=x', '?cursor=1', '?limit=0'])
      expect((await app.send('GET', at(query))).status).toBe(400);
  });

  test('is cleared but for what is pinned, which outlasts restarts until it is let go', async () => {
    await exchanges();
    expect((await app.send('PUT', at('/1/pin'))).status).toBe(204);
    expect((await app.send('PUT', at('/9/pin'))).status).toBe(404);
    expect((await app.send('DELETE', at())).status).toBe(204);
    expect((await listed()).map(({ number, pinned }) => [number, pinned])).toEqual([[1, true]]);
    expect((await app.json<Mock>('GET', `/api/mocks/${mock.id}`)).journal.from).toBe(4);
    await restart();
    expect(await numbers()).toEqual([1]);
    expect((await app.json<Exchange>('GET', at('/1'))).request.body).toBe('{"name":"Changed"}');
    expect((await app.send('DELETE', at('/1/pin'))).status).toBe(204);
    expect(await numbers()).toEqual([]);
    expect((await app.send('GET', at('/1'))).status).toBe(404);
  });

  test('holds the resource that a page shows, not the source of the page', async () => {
    const answer = await fetch(`${base}/routes/1`, { headers: { Accept: 'text/html' } });
    expect(answer.headers.get('Content-Type')).toContain('text/html');
    const { response, page } = await app.json<Exchange>('GET', at('/1'));
    expect(page).toBe(true);
    expect(response.head).toContain('Content-Type: text/html');
    expect(JSON.parse(response.body)).toMatchObject({ id: 1 });
  });

  test('goes with its mock', async () => {
    await exchanges();
    await restart();
    expect((await app.send('DELETE', `/api/mocks/${mock.id}`)).status).toBe(204);
    expect((await app.send('GET', at())).status).toBe(404);
  });
});
