import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readConfig } from '../src/config.js';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { sendJson } from './support/server.js';

const TEXT =
  'entity Route\n  name: text(1..60)\n\nentity Sailing\n\neach Route owns many Sailing as sailings\n';

let app: TestApp;
let mock: MockBody;
beforeAll(async () => {
  app = await TestApp.start({ limits: { records: 5, exchanges: 3, journalBytes: 1_048_576 } });
  const { id } = await app.createDesign(TEXT);
  mock = await app.createMock(id, { counts: { Route: 2, Sailing: 1 } });
});
afterAll(() => app.close());

const post = (path: string): Promise<Response> => sendJson(`${mock.baseUrls.main}${path}`, 'POST', {});

describe('what a mock holds', () => {
  test('no more records than it may, whoever adds them; what is removed makes room', async () => {
    expect((await post('/routes')).status).toBe(201);
    const both = await Promise.all([post('/routes'), post('/routes')]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 507]);
    const refused = both.find(({ status }) => status === 507);
    expect((await refused?.json()) as ProblemBody).toMatchObject({
      detail: 'A mock holds at most 5 records; remove some first.',
      status: 507,
    });
    const change = await sendJson(`${mock.baseUrls.main}/routes/1`, 'PATCH', { name: 'Changed' });
    expect(change.status).toBe(200);
    expect((await sendJson(`${mock.baseUrls.main}/routes/2`, 'DELETE')).status).toBe(204);
    expect((await post('/routes')).status).toBe(201);
    const taken = await app.send('POST', `/api/mocks/${mock.id}/records`, { Route: [{}, {}] });
    expect(taken.status).toBe(400);
  });

  test('in memory no more exchanges than it may; those before are where they are written to', async () => {
    for (let count = 0; count < 5; count++) await fetch(`${mock.baseUrls.main}/routes?size=${count + 1}`);
    const { items } = await app.json<{ items: { target: string }[] }>(
      'GET',
      `/api/mocks/${mock.id}/exchanges`,
    );
    expect(items.slice(0, 5).map(({ target }) => target)).toEqual(
      [5, 4, 3, 2, 1].map((size) => `/api/v1/routes?size=${size}`),
    );
  });

  test.each([
    [{ ISOMEROS_MAX_RECORDS: '0' }, /ISOMEROS_MAX_RECORDS must be a whole number/],
    [{ ISOMEROS_MAX_EXCHANGES: 'all' }, /ISOMEROS_MAX_EXCHANGES must be a whole number/],
    [{ ISOMEROS_MAX_JOURNAL_MIB: '-1' }, /ISOMEROS_MAX_JOURNAL_MIB must be a whole number/],
  ])('is told by the environment, or the server does not start: %j', (environment, message) => {
    const address = { ISOMEROS_DATABASE_URL: 'mariadb://a@b/c' };
    expect(() => readConfig({ ...address, ...environment })).toThrow(message);
    const limits = { records: 1_000_000, exchanges: 10_000, journalBytes: 256 * 1_048_576 };
    expect(readConfig(address).limits).toEqual(limits);
  });
});
