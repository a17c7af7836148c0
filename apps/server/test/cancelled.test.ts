import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { MigrationView, Mock } from '@isomeros/api';
import { TestApp, type MockBody } from './support/app.js';
import { ROUTES } from './support/models.js';
import { eventually } from './support/server.js';

const COLOURED = ROUTES.replace('unique', 'unique\n  colour: text(1..9), required');

let app: TestApp;
let design: string;
let mock: MockBody;
beforeAll(async () => {
  app = await TestApp.start();
  design = (await app.createDesign(ROUTES)).id;
  mock = await app.createMock(design, { counts: { Route: 3, Sailing: 0 } });
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
    await leave(`/api/mocks/${mock.id}/seed-preview`, { counts: { Route: 300_000, Sailing: 0 } });
    await leave(`/api/mocks/${mock.id}/reset`, {});
    await app.json('POST', `/api/mocks/${mock.id}/records/Route`, [{ name: 'Once more' }]);
    expect(await records()).toBe(5);
  });

  test('leaves the records as they were, be it a snapshot restored, a large write taken back, or a migration', async () => {
    const path = `/api/mocks/${mock.id}`;
    const many = Array.from({ length: 150_000 }, (_, index) => ({ name: `Route ${index}` }));
    await app.json('POST', `${path}/records/Route`, many);
    const before = await records();
    await app.json('POST', `${path}/snapshots`, { name: 'many' });
    await leave(`${path}/snapshots/many/restore`, {});
    await leave(`${path}/undo`, {});
    expect(await records()).toBe(before);
    await app.json('PUT', `/api/designs/${design}/model`, { text: COLOURED });
    const [step] = await eventually(async () => {
      const { steps } = await app.json<MigrationView>('GET', `${path}/migration`);
      return steps.length > 0 ? steps : null;
    }, 'what is to be decided');
    const decisions = { [step?.id ?? '']: { do: 'fill', value: 'red' } };
    await leave(`${path}/migration`, { decisions });
    expect((await app.json<MigrationView>('GET', `${path}/migration`)).steps).toEqual([step]);
    await app.json('POST', `${path}/records/Route`, [{ name: 'Without a colour' }]);
    expect(await records()).toBe(before + 1);
  });
});
