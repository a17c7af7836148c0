import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { parse } from 'yaml';
import { TestApp, type ProblemBody } from './support/app.js';

const TEXT = `design "Released"

entity Route
  name: text(1..60), required
  berths: integer
`;

interface ReleaseBody {
  readonly label: string;
  readonly arrangement: string;
  readonly version: string;
  readonly revision: number;
  readonly operations: number;
}

interface ChangeBody {
  readonly compatibility: string;
  readonly message: string;
}

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

const changesOf = async (id: string, query = ''): Promise<string[]> => {
  const path = `/api/designs/${id}/releases/1.0/changes${query}`;
  const { items } = await app.json<{ items: readonly ChangeBody[] }>('GET', path);
  return items.map(({ compatibility, message }) => `${compatibility}: ${message}`);
};

const refusal = async (response: Response): Promise<[number, string]> => [
  response.status,
  ((await response.json()) as ProblemBody).detail,
];

describe('releases of a design', () => {
  test('a release stays as it was made, whatever becomes of the design', async () => {
    const { id } = await app.createDesign(TEXT);
    const at = `/api/designs/${id}/releases`;
    const made = await app.send('POST', at, { label: '1.0', arrangement: 'main' });
    expect([made.status, made.headers.get('location')]).toEqual([201, `${at}/1.0`]);
    const frozen = await (await app.send('GET', `${at}/1.0/contract`)).text();
    expect(await changesOf(id)).toEqual([]);
    await app.json('PUT', `/api/designs/${id}/model`, { text: TEXT.replace('  berths: integer\n', '') });
    expect(await changesOf(id)).toContain('breaking: berths of Route is not answered any more.');
    expect(await (await app.send('GET', `${at}/1.0/contract`)).text()).toBe(frozen);
    const { items } = await app.json<{ items: readonly ReleaseBody[] }>('GET', at);
    expect(items).toMatchObject([
      { label: '1.0', arrangement: 'main', version: 'v1', revision: 1, operations: 7 },
    ]);
  });

  test('it is published like a contract of its own', async () => {
    const { id } = await app.createDesign(TEXT);
    const at = `/api/designs/${id}/releases`;
    const was = await app.json('GET', `/api/designs/${id}/arrangements/main/openapi.json`);
    await app.json('POST', at, { label: '1.0', arrangement: 'main' });
    await app.json('PUT', `/api/designs/${id}/model`, { text: TEXT.replace('Route', 'Line') });
    expect(await app.json('GET', `${at}/1.0/openapi.json`)).toEqual(was);
    expect(parse(await (await app.send('GET', `${at}/1.0/openapi.yaml`)).text())).toEqual(was);
  });

  test('it is compared with any arrangement, and follows its own under another name', async () => {
    const { id } = await app.createDesign(TEXT);
    await app.json('PUT', `/api/designs/${id}/arrangements/beside`, { settings: { basePath: '/rest' } });
    await app.json('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
    expect(await changesOf(id, '?arrangement=beside')).toContain(
      'breaking: GET, POST /api/v1/routes are /rest/v1/routes now.',
    );
    await app.json('PUT', `/api/designs/${id}/arrangements/main/name`, { name: 'shore' });
    expect(await app.json('GET', `/api/designs/${id}/releases/1.0`)).toMatchObject({ arrangement: 'shore' });
    expect(await changesOf(id)).toEqual([]);
    const unknown = await app.send('GET', `/api/designs/${id}/releases/1.0/changes?arrangement=none`);
    expect(unknown.status).toBe(404);
  });

  test('what is refused, and why', async () => {
    const { id } = await app.createDesign(TEXT);
    const at = `/api/designs/${id}/releases`;
    await app.json('POST', at, { label: '1.0', arrangement: 'main' });
    const again = app.send('POST', at, { label: '1.0', arrangement: 'main' });
    expect(await refusal(await again)).toEqual([
      409,
      'There is a release 1.0 already, and releases never change.',
    ]);
    const badly = await app.send('POST', at, { label: 'a/b', arrangement: 'main' });
    expect(badly.status).toBe(400);
    expect((await app.send('POST', at, { label: '1.1', arrangement: 'none' })).status).toBe(404);
    const colliding = {
      settings: {},
      arrangements: [{ name: 'main', words: { Route: 'x', Stop: 'x' } }],
      answered: [],
    };
    await app.json('PUT', `/api/designs/${id}/model`, { text: `${TEXT}\nentity Stop\n` });
    await app.json('PUT', `/api/designs/${id}/choices`, colliding);
    const [status, detail] = await refusal(await app.send('POST', at, { label: '1.1', arrangement: 'main' }));
    expect([status, detail.startsWith('The contract has 1 error, the first: ')]).toEqual([409, true]);
  });

  test('releases made at once are told apart, and one can be taken back', async () => {
    const { id } = await app.createDesign(TEXT);
    const at = `/api/designs/${id}/releases`;
    const labels = ['a', 'b', 'c', 'd'];
    const made = await Promise.all(
      labels.map((label) => app.send('POST', at, { label, arrangement: 'main' })),
    );
    expect(made.map(({ status }) => status)).toEqual([201, 201, 201, 201]);
    expect((await app.send('DELETE', `${at}/b`)).status).toBe(204);
    expect((await app.send('DELETE', `${at}/b`)).status).toBe(404);
    const { items } = await app.json<{ items: readonly ReleaseBody[] }>('GET', at);
    expect(items.map(({ label }) => label).sort()).toEqual(['a', 'c', 'd']);
  });
});
