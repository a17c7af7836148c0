import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ExchangeSummary, Mock } from '@isomeros/api';
import { createSchema, dropSchema } from './support/database.js';
import { TestApp, type ProblemBody } from './support/app.js';
import { ROUTES } from './support/models.js';
import { eventually, sendJson } from './support/server.js';

let app: TestApp;
let schema: string;
beforeAll(async () => {
  schema = await createSchema();
  app = await TestApp.start({ databaseUrl: schema });
});
afterAll(async () => {
  await app.stop();
  await dropSchema(schema);
});

/** A design with two arrangements, and a mock that serves both. */
async function served(
  main: object,
  second: object,
): Promise<{ readonly design: string; readonly mock: Mock; readonly urls: readonly [string, string] }> {
  const { id: design } = await app.createDesign(ROUTES);
  await app.json('PUT', `/api/designs/${design}/arrangements/main`, { settings: main });
  await app.json('PUT', `/api/designs/${design}/arrangements/second`, { settings: second });
  const mock = await app.json<Mock>('POST', '/api/mocks', { design, arrangements: ['main', 'second'] });
  return { design, mock, urls: [mock.baseUrls['main'] ?? '', mock.baseUrls['second'] ?? ''] };
}

const exchangesOf = async ({ id }: Mock): Promise<readonly ExchangeSummary[]> =>
  (await app.json<{ items: ExchangeSummary[] }>('GET', `/api/mocks/${id}/exchanges`)).items;

describe('what a mock serves', () => {
  test('is at one origin where roots differ; each entry and what is not there name what is beside', async () => {
    const { mock, urls } = await served({ version: 'v1' }, { version: 'v2' });
    const { origin } = new URL(urls[0]);
    expect(urls).toEqual([`${origin}/api/v1`, `${origin}/api/v2`]);
    const entry = await fetch(urls[0]);
    expect(entry.headers.get('Link')).toContain('</api/v2>; rel="related"; title="second"');
    expect((await fetch(`${urls[1]}/routes/1`)).status).toBe(200);
    const missing = (await (await fetch(`${origin}/api/v3/routes`)).json()) as ProblemBody;
    expect(missing).toMatchObject({ status: 404 });
    expect(missing.detail).toContain('Served beside it: /api/v2 (second).');
    expect(await (await fetch(`${origin}/`)).json()).toEqual({
      entries: [
        { href: '/api/v1', name: 'main', version: 'v1' },
        { href: '/api/v2', name: 'second', version: 'v2' },
      ],
    });
    const page = await fetch(`${origin}/`, { headers: { Accept: 'text/html' } });
    expect(await page.text()).toContain('<a href="/api/v2">/api/v2</a> second');
    const told = (await exchangesOf(mock)).map(({ arrangement, target }) => [arrangement, target]);
    expect(told).toContainEqual(['second', '/api/v2/routes/1']);
  });

  test('is told apart by the header that names the version; without it the first is asked, and all answers vary', async () => {
    const shared = { versionIn: 'header' };
    const { mock, urls } = await served(
      { ...shared, version: '1' },
      { ...shared, version: '2', pathCase: 'snake' },
    );
    expect(urls[0]).toBe(urls[1]);
    const ask = (version?: string): Promise<Response> =>
      fetch(`${urls[0]}/routes/1`, version === undefined ? {} : { headers: { 'API-Version': version } });
    for (const version of [undefined, '1', '2']) {
      const answer = await ask(version);
      expect([version, answer.status]).toEqual([version, 200]);
      expect(answer.headers.get('Vary')).toContain('API-Version');
    }
    const wrong = (await (await ask('3')).json()) as ProblemBody;
    expect(wrong.detail).toContain('API-Version: 2 (second)');
    const asked = async (): Promise<string | undefined> => (await exchangesOf(mock))[0]?.arrangement;
    await ask();
    expect(await asked()).toBe('main');
    const chosen = await app.json<Mock>('PUT', `/api/mocks/${mock.id}/unversioned`, {
      arrangement: 'second',
    });
    expect(chosen.unversioned).toEqual({ arrangement: 'second' });
    await ask();
    expect(await asked()).toBe('second');
    await app.stop();
    app = await TestApp.start({ databaseUrl: schema });
    await ask();
    expect(await asked()).toBe('second');
    await ask('1');
    expect(await asked()).toBe('main');
  });

  test('has ports of its own where roots are the same, and parts where they become so', async () => {
    const { design, mock, urls } = await served({ version: 'v1' }, { version: 'v2' });
    expect(new URL(urls[0]).port).toBe(new URL(urls[1]).port);
    await app.json('PUT', `/api/designs/${design}/arrangements/second`, { settings: { version: 'v1' } });
    const parted = await eventually(async () => {
      const { baseUrls } = await app.json<Mock>('GET', `/api/mocks/${mock.id}`);
      const [one, other] = [baseUrls['main'] ?? '', baseUrls['second'] ?? ''];
      return new URL(one).port === new URL(other).port ? null : { one, other };
    }, 'two ports');
    for (const url of [parted.one, parted.other]) expect((await fetch(`${url}/routes/1`)).status).toBe(200);
    expect(parted.one).toBe(urls[0]);
  });

  test('is stopped and started with its mock alone, at the addresses it had', async () => {
    const { mock, urls } = await served({ version: 'v1' }, { version: 'v2' });
    await app.json('POST', `/api/mocks/${mock.id}/stop`);
    await expect(fetch(urls[0])).rejects.toThrow();
    const again = await app.json<Mock>('POST', `/api/mocks/${mock.id}/start`);
    expect([again.baseUrls['main'], again.baseUrls['second']]).toEqual(urls);
    await app.stop();
    app = await TestApp.start({ databaseUrl: schema });
    for (const url of urls) expect((await fetch(`${url}/routes`)).status).toBe(200);
  });

  test('keeps its address where a release gets records of its own; the port closes with the last', async () => {
    const { id: design } = await app.createDesign(ROUTES);
    await app.json('POST', `/api/designs/${design}/releases`, { label: '1.0', arrangement: 'main' });
    await app.json('PUT', `/api/designs/${design}/arrangements/main`, { settings: { version: 'v2' } });
    const mock = await app.json<Mock>('POST', '/api/mocks', {
      design,
      arrangements: ['main'],
      releases: ['1.0'],
    });
    const [main, release] = [mock.baseUrls['main'] ?? '', mock.releaseUrls['1.0'] ?? ''];
    expect(new URL(main).port).toBe(new URL(release).port);
    await app.json('PUT', `/api/designs/${design}/model`, {
      text: ROUTES.replace('name: text(1..60), required', 'name: text(1..90), required'),
    });
    await eventually(async () => {
      const { servesRevision } = await app.json<Mock>('GET', `/api/mocks/${mock.id}`);
      return servesRevision > mock.servesRevision ? true : null;
    }, 'the new model to be served');
    const long = await sendJson(`${main}/routes`, 'POST', { name: 'x'.repeat(80) });
    expect(long.status).toBe(201);
    const all = await app.json<{ items: Mock[] }>('GET', `/api/mocks?design=${design}`);
    expect(all.items).toHaveLength(2);
    for (const url of [main, release]) expect((await fetch(`${url}/routes`)).status).toBe(200);
    await app.json('POST', `/api/mocks/${mock.id}/stop`);
    expect((await fetch(`${release}/routes`)).status).toBe(200);
    expect((await fetch(`${main}/routes`)).status).toBe(404);
    const parted = all.items.find(({ id }) => id !== mock.id);
    expect((await app.send('DELETE', `/api/mocks/${parted?.id ?? ''}`)).status).toBe(204);
    await expect(fetch(`${release}/routes`)).rejects.toThrow();
  });
});
