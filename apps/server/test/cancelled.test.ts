import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Mock } from '@isomeros/api';
import { TestApp, type MockBody } from './support/app.js';
import { ROUTES } from './support/models.js';

let app: TestApp;
let mock: MockBody;
beforeAll(async () => {
  app = await TestApp.start();
  const { id } = await app.createDesign(ROUTES);
  mock = await app.createMock(id, { counts: { Route: 3, Sailing: 0 } });
});
afterAll(() => app.close());

const records = async (): Promise<number> => (await app.json<Mock>('GET', `/api/mocks/${mock.id}`)).records;

/** Asks for something long, and goes away as soon as the server says that it has begun. */
async function leave(path: string, body: unknown): Promise<void> {
  const controller = new AbortController();
  const events = await fetch(`${app.url}/api/mocks/${mock.id}/events`, { signal: controller.signal });
  const reader = events.body?.pipeThrough(new TextDecoderStream()).getReader();
  const asked = fetch(app.url + path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
    signal: controller.signal,
  });
  const refused = expect(asked).rejects.toThrow();
  for (let text = ''; !text.includes('event: progress');) text += (await reader?.read())?.value ?? '';
  controller.abort();
  await refused;
}

describe('what is cancelled', () => {
  test('writes nothing, be it an import or a reset, and lets others write at once', async () => {
    const many = Array.from({ length: 150_000 }, (_, index) => ({ name: `Route ${index}` }));
    await leave(`/api/mocks/${mock.id}/records/Route`, many);
    await app.json('POST', `/api/mocks/${mock.id}/records/Route`, [{ name: 'After' }]);
    expect(await records()).toBe(4);
    await app.json('PUT', `/api/mocks/${mock.id}/seed-plan`, { counts: { Route: 300_000, Sailing: 0 } });
    await leave(`/api/mocks/${mock.id}/reset`, {});
    await app.json('POST', `/api/mocks/${mock.id}/records/Route`, [{ name: 'Once more' }]);
    expect(await records()).toBe(5);
  });
});
