import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Exchange } from '@isomeros/api';
import { RecentExchanges } from '../src/mocks/journal/recentExchanges.js';
import { exchangeToStore, describeExchange } from '../src/mocks/journal/storedExchange.js';
import { TestApp, type MockBody } from './support/app.js';
import { keptExchange } from './support/keptExchange.js';
import { ROUTES } from './support/models.js';
import { sendJson } from './support/server.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

async function startMock(): Promise<{ mock: MockBody; base: string }> {
  const design = await app.createDesign(ROUTES);
  const mock = await app.createMock(design.id);
  return { mock, base: mock.baseUrls.main };
}

interface Summary {
  readonly number: number;
  readonly client: string;
  readonly method: string;
  readonly operation: string | null;
  readonly status: number;
}

const exchangesOf = async (mock: MockBody): Promise<Summary[]> =>
  (await app.json<{ items: Summary[] }>('GET', `/api/mocks/${mock.id}/exchanges`)).items;

describe('an exchange as an example', () => {
  const exampleOf = (mock: MockBody, number: number): Promise<Response> =>
    fetch(`${app.url}/api/mocks/${mock.id}/exchanges/${number}/example`);

  test('holds the records as they were before it, and is answered as it was', async () => {
    const { mock, base } = await startMock();
    await sendJson(`${base}/routes/1`, 'PATCH', { name: 'Changed' });
    await fetch(`${base}/routes/1`, { method: 'DELETE' });
    const changed = await exampleOf(mock, 1);
    expect(changed.status).toBe(200);
    expect(await changed.json()).toMatchObject({
      operation: 'Route/item:change',
      ids: [{ of: 'Route/item', value: '1' }],
      body: '{"name":"Changed"}',
      status: 200,
    });
    const removed = (await (await exampleOf(mock, 2)).json()) as {
      status: number;
      records: readonly { values: Record<string, unknown> }[];
    };
    expect(removed.status).toBe(204);
    expect(removed.records.map(({ values }) => Object.values(values))).toContainEqual(
      expect.arrayContaining([1, 'Changed']),
    );
  });

  test('is refused where nothing could be kept of it', async () => {
    const { mock, base } = await startMock();
    await fetch(`${base}/nowhere`);
    expect((await exampleOf(mock, 1)).status).toBe(409);
    expect((await exampleOf(mock, 9)).status).toBe(404);
    expect((await fetch(`${app.url}/api/mocks/${mock.id}/exchanges/x/example`)).status).toBe(404);
  });
});

describe('the journal', () => {
  test('holds every exchange with its trace and the records before and after', async () => {
    const { mock, base } = await startMock();
    await sendJson(`${base}/routes/1`, 'PATCH', { name: 'Changed' }, { 'User-Agent': 'booking-web/2.1' });
    await fetch(`${base}/routes/999`);
    const [second, first] = await exchangesOf(mock);
    expect(first).toMatchObject({
      number: 1,
      client: 'booking-web',
      method: 'PATCH',
      operation: 'changeRoute',
      status: 200,
    });
    expect(second).toMatchObject({ number: 2, operation: 'readRoute', status: 404 });
    const exchange = await app.json<{
      records: object[];
      trace: { step: string; outcome: string; milliseconds: number }[];
      milliseconds: number;
      request: { body: string };
    }>('GET', `/api/mocks/${mock.id}/exchanges/1`);
    expect(exchange.request.body).toBe('{"name":"Changed"}');
    expect(exchange.records).toEqual([
      expect.objectContaining({
        entity: 'Route',
        key: 1,
        effect: 'changed',
        after: { id: 1, name: 'Changed' },
      }),
    ]);
    const taken = exchange.trace.reduce((sum, { milliseconds }) => sum + milliseconds, 0);
    expect(Math.abs(taken - exchange.milliseconds)).toBeLessThan(0.1);
    expect(exchange.trace.map(({ step }) => step)).toEqual([
      'target',
      'match',
      'locate',
      'negotiate',
      'body',
      'apply',
      'answer',
    ]);
    const missing = await app.json<{ trace: { step: string; outcome: string }[] }>(
      'GET',
      `/api/mocks/${mock.id}/exchanges/2`,
    );
    expect(missing.trace.at(-2)).toMatchObject({ step: 'locate', outcome: 'stopped' });
  });

  test('keeps what every client sent as it was sent, also where others send the same', async () => {
    const { mock, base } = await startMock();
    const target = `${new URL(base).pathname}/routes`;
    const send = async (userAgent: string, path: string): Promise<void> => {
      await (await fetch(new URL(path, base), { headers: { 'User-Agent': userAgent } })).text();
    };
    await send('one/1', target);
    await send('two/2', `${target}/?size=2`);
    await send('two/2', target);
    await send('one/1', `${target}/1`);
    const heads = await Promise.all(
      [1, 2, 3, 4].map(async (number) => {
        const exchange = await app.json<{ client: string; request: { head: string } }>(
          'GET',
          `/api/mocks/${mock.id}/exchanges/${number}`,
        );
        const agent = /^user-agent: (.*)$/im.exec(exchange.request.head)?.[1]?.trim();
        return [exchange.client, agent, exchange.request.head.split('\r\n', 1)[0]];
      }),
    );
    expect(heads).toEqual([
      ['one', 'one/1', `GET ${target} HTTP/1.1`],
      ['two', 'two/2', `GET ${target}/?size=2 HTTP/1.1`],
      ['two', 'two/2', `GET ${target} HTTP/1.1`],
      ['one', 'one/1', `GET ${target}/1 HTTP/1.1`],
    ]);
  });

  test('holds no secret, and a message it recorded can be sent again', async () => {
    const { id } = await app.createDesign(
      'entity Member\n  name: text(1..40), required\n  password: text(8..40), required, write-only\n',
    );
    await app.json('PUT', `/api/designs/${id}/choices`, { settings: { security: ['bearer'] }, answered: [] });
    const mock = await app.createMock(id);
    const base = mock.baseUrls.main;
    const body = { name: 'A', password: 'hunter22' };
    const headers = { Authorization: 'Bearer user-secret', Cookie: 'session=abc' };
    expect((await sendJson(`${base}/members`, 'POST', body, headers)).status).toBe(201);
    await sendJson(`${base}/members/1`, 'PATCH', { password: 'short' }, headers);
    await sendJson(`${base}/nowhere`, 'POST', body, { Authorization: 'Bearer guessed' });
    const texts = await Promise.all(
      [1, 2, 3].map(async (number) =>
        JSON.stringify(await app.json('GET', `/api/mocks/${mock.id}/exchanges/${number}`)),
      ),
    );
    for (const text of texts) expect(text).not.toMatch(/hunter22|user-secret|session=abc|"short"|guessed/);
    const { request } = await app.json<{ request: { head: string; body: string } }>(
      'GET',
      `/api/mocks/${mock.id}/exchanges/1`,
    );
    expect(request.head).toContain('Authorization: Bearer (user)');
    const lines = request.head.split('\r\n').filter((line) => !/^(?:content-length|connection):/i.test(line));
    const message = `${lines.join('\n')}\n\n${request.body.replace('***', 'another-one')}`;
    await app.send('POST', `/api/mocks/${mock.id}/messages`, { message });
    expect((await exchangesOf(mock))[0]).toMatchObject({ operation: 'createMember', status: 201 });
  });

  test('is told live, and tells what was missed', async () => {
    const { mock, base } = await startMock();
    await fetch(`${base}/routes`);
    await fetch(`${base}/routes/1`);
    const abort = new AbortController();
    const stream = await fetch(`${app.url}/api/mocks/${mock.id}/events`, {
      headers: { 'Last-Event-ID': '1' },
      signal: abort.signal,
    });
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    let text = '';
    const until = async (wanted: RegExp): Promise<void> => {
      while (!wanted.test(text)) {
        const { value, done } = await reader.read();
        if (done) throw new Error(`The stream ended: ${text}`);
        text += new TextDecoder().decode(value);
      }
    };
    await until(/"number":2/);
    expect(text).not.toContain('"number":1,');
    await fetch(`${base}/routes/2`);
    await until(/"number":3/);
    await app.send('POST', `/api/mocks/${mock.id}/stop`);
    await until(/"running":false/);
    abort.abort();
  });

  test('a message written as it travels is sent, and shows up like any other', async () => {
    const { mock } = await startMock();
    const message = 'POST /api/v1/routes HTTP/1.1\nContent-Type: application/json\n\n{ "name": "By hand" }\n';
    const { lastExchange } = await app.json<{ lastExchange: number }>(
      'POST',
      `/api/mocks/${mock.id}/messages`,
      { message },
    );
    const exchange = await app.json<Summary>('GET', `/api/mocks/${mock.id}/exchanges/${lastExchange}`);
    expect(exchange).toMatchObject({ client: 'here', operation: 'createRoute', status: 201 });
    const broken = await app.send('POST', `/api/mocks/${mock.id}/messages`, { message: 'hello' });
    expect(broken.status).toBe(400);
    await app.send('POST', `/api/mocks/${mock.id}/stop`);
    expect((await app.send('POST', `/api/mocks/${mock.id}/messages`, { message })).status).toBe(409);
  });
});

const told = (journal: RecentExchanges, number: number): Exchange | undefined => {
  const kept = journal.find(number);
  return kept === undefined ? undefined : describeExchange(exchangeToStore(kept), kept.contract, false);
};

describe('exchanges in memory', () => {
  test('keeps so many exchanges and no more, the newest of them', () => {
    const journal = new RecentExchanges(3);
    for (let number = 1; number <= 8; number++) journal.add(keptExchange(`/api/v1/routes/${number}`, '{}'));
    expect(journal.count).toBe(8);
    expect([0, 1, 5, 6, 7, 8, 9].map((number) => told(journal, number)?.target)).toEqual([
      undefined,
      undefined,
      undefined,
      '/api/v1/routes/6',
      '/api/v1/routes/7',
      '/api/v1/routes/8',
      undefined,
    ]);
    expect([...journal.newestFirst()].map(({ number }) => number)).toEqual([8, 7, 6]);
    expect(told(journal, 7)?.milliseconds).toBe(1.23);
    journal.clear();
    expect([journal.count, told(journal, 8)]).toEqual([8, undefined]);
  });

  test('keeps the beginning of what is long, and says so', () => {
    const journal = new RecentExchanges(10);
    const text = 'é'.repeat(70_000);
    journal.add(keptExchange('/', text, { body: { kind: 'text', text, bytes: 140_000 } }));
    journal.add(keptExchange('/', 'short', { body: { kind: 'text', text: 'short', bytes: 5 } }));
    const [long, short] = [told(journal, 1), told(journal, 2)];
    for (const message of [long?.request, long?.response])
      expect([message?.body.length, message?.cut]).toEqual([65_536, true]);
    for (const message of [short?.request, short?.response])
      expect([message?.body, message?.cut]).toEqual(['short', false]);
  });

  test('lets the bodies of old ones go before it takes too much memory', () => {
    const journal = new RecentExchanges(1_000);
    for (let number = 1; number <= 600; number++)
      journal.add(keptExchange(`/api/v1/routes/${number}`, String(number).padEnd(60_000, 'x')));
    const first = told(journal, 1);
    expect([first?.target, first?.response.body, first?.response.cut]).toEqual([
      '/api/v1/routes/1',
      '',
      true,
    ]);
    expect(first?.response.head).toBe('HTTP/1.1 200 OK\r\nETag: "1"');
    expect(told(journal, 600)?.response).toMatchObject({ cut: false });
    const kept = Array.from(
      { length: 600 },
      (_, index) => told(journal, index + 1)?.response.body.length ?? 0,
    );
    expect(kept.reduce((sum, length) => sum + length, 0)).toBeLessThanOrEqual(32 * 1_048_576);
    expect(kept.filter((length) => length > 0).length).toBeGreaterThan(500);
  });

  test('takes on as many as it lets go, however long it goes on', () => {
    const journal = new RecentExchanges(4);
    for (let number = 1; number <= 2_000; number++)
      journal.add(keptExchange(`/${number}`, 'y'.repeat((number % 7) * 9_000)));
    const bodies = [1_997, 1_998, 1_999, 2_000].map((number) => told(journal, number)?.response);
    expect(bodies.map((response) => response?.cut)).toEqual([false, false, false, false]);
    expect(bodies.map((response) => response?.body.length)).toEqual(
      [1_997, 1_998, 1_999, 2_000].map((number) => (number % 7) * 9_000),
    );
  });
});
