import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { eventually, sendJson } from './support/server.js';

const TEXT = `entity Route
  code: text(2..4), key
  name: text(1..60)
  length: text(0..9)

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

const EDITED = TEXT.replace('name: text(1..60)', 'name: text(1..60), required, unique').replace(
  'length: text(0..9)',
  'length: integer(0..50)',
);

const RECORDS = {
  Route: [
    { code: 'KS', name: 'Over', length: '12' },
    { code: 'TV', name: 'Over', length: '70' },
    { code: 'XX', length: '3' },
  ],
  Sailing: [{ id: 1, route: 'XX' }],
};

interface Plan {
  readonly from: number;
  readonly to: number;
  readonly steps: readonly { readonly id: string; readonly first: readonly string[] }[];
}

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

/** A mock whose model is another one by now, and waits. */
async function waiting(): Promise<{ design: string; base: string; path: string }> {
  const { id } = await app.createDesign(TEXT);
  const mock = await app.createMock(id);
  const path = `/api/mocks/${mock.id}`;
  await app.json('POST', `${path}/records?mode=replace`, RECORDS);
  await app.json('PUT', `/api/designs/${id}/model`, { text: EDITED });
  await eventually(async () => {
    const { obstacles } = await app.json<MockBody>('GET', path);
    return obstacles.length > 0 ? obstacles : null;
  }, 'what stands against the model');
  return { design: id, base: mock.baseUrls.main, path };
}

const DECISIONS = {
  'misfit Route.length Route': { do: 'convert' },
  'unset Route.name Route': { do: 'fill', value: 'Named' },
  'taken Route.name Route': { do: 'convert' },
};

describe('records of a mock whose model was edited', () => {
  test('wait, and are told with what is offered', async () => {
    const { base, path } = await waiting();
    const plan = await app.json<Plan>('GET', `${path}/migration`);
    expect([plan.from, plan.to]).toEqual([1, 2]);
    expect(plan.steps.map(({ id, first }) => [id, first])).toEqual([
      ['misfit Route.length Route', ['KS', 'TV', 'XX']],
      ['taken Route.name Route', ['TV']],
      ['unset Route.name Route', ['XX']],
    ]);
    const { obstacles } = await app.json<MockBody>('GET', path);
    expect(obstacles).toContain('Route.name is required, and has no value: XX.');
    expect(await (await fetch(`${base}/routes/XX`)).json()).toMatchObject({ name: null, length: '3' });
  });

  test('follow what is decided, after a snapshot that can be put back under the model of then', async () => {
    const { base, path } = await waiting();
    const mock = await app.json<MockBody>('POST', `${path}/migration`, { decisions: DECISIONS });
    expect(mock).toMatchObject({ servesRevision: 2, obstacles: [] });
    const read = async (code: string): Promise<unknown> => (await fetch(`${base}/routes/${code}`)).json();
    expect(await read('KS')).toMatchObject({ name: 'Over', length: 12 });
    expect(await read('TV')).toMatchObject({ name: 'Over-2', length: 50 });
    expect(await read('XX')).toMatchObject({ name: 'Named', length: 3 });
    const { items } = await app.json<{ items: { name: string; records: number }[] }>(
      'GET',
      `${path}/snapshots`,
    );
    expect(items).toMatchObject([{ name: 'before revision 2', records: 4 }]);
    expect(await app.json('GET', `${path}/migration`)).toMatchObject({ from: 2, to: 2, steps: [] });
    const again = await app.json<MockBody>('POST', `${path}/migration`, { decisions: {} });
    expect(again.servesRevision).toBe(2);
  });

  test('are left as they are while something is open, and it is told', async () => {
    const { base, path } = await waiting();
    const { 'taken Route.name Route': taken, ...rest } = DECISIONS;
    expect(taken.do).toBe('convert');
    const refused = await app.send('POST', `${path}/migration`, { decisions: rest });
    expect(refused.status).toBe(409);
    const problem = (await refused.json()) as ProblemBody & Plan;
    expect(problem.detail).toBe('Nothing was changed: 1 thing is still open.');
    expect(problem.steps.map(({ id }) => id)).toEqual(['taken Route.name Route']);
    expect(await (await fetch(`${base}/routes/XX`)).json()).toMatchObject({ name: null });
    expect(await app.json('GET', `${path}/snapshots`)).toEqual({ items: [] });
  });

  test('go on taking writes of the model that is served, which are migrated too', async () => {
    const { base, path } = await waiting();
    await sendJson(`${base}/routes`, 'POST', { code: 'NEW', length: '99' });
    await app.json('POST', `${path}/migration`, { decisions: DECISIONS });
    expect(await (await fetch(`${base}/routes/NEW`)).json()).toMatchObject({ length: 50 });
  });

  test.each([
    [{ 'unset Route.name Route': { do: 'fill', value: 7 } }, '/decisions/unset Route.name Route'],
    [{ 'unset Route.name Route': { do: 'guess' } }, '/decisions/unset Route.name Route'],
    [{ a: { do: 'fill' }, b: 'drop' }, '/decisions/a'],
  ])('refuse a decision that does not fit: %j', async (decisions, pointer) => {
    const { path } = await waiting();
    const refused = await app.send('POST', `${path}/migration`, { decisions });
    expect(refused.status).toBe(400);
    expect(((await refused.json()) as ProblemBody).errors?.[0]?.pointer).toBe(pointer);
  });
});
