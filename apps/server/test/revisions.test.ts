import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { plainArrangement, type DesignFile } from '@isomeros/core/arrangement';
import { TestApp, type DesignBody, type ProblemBody } from './support/app.js';
import { eventually } from './support/server.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

const TEXT = 'design "Test"\n\nentity Route\n  name: text(1..60), required\n  length: integer\n';

interface RevisionBody {
  readonly number: number;
  readonly what: string;
  readonly valid: boolean;
  readonly lines: { readonly added: number; readonly removed: number };
  readonly text: string;
}

const save = (id: string, text: string): Promise<DesignBody> =>
  app.json('PUT', `/api/designs/${id}/model`, { text });

const revisionsOf = async (id: string): Promise<readonly RevisionBody[]> =>
  (await app.json<{ items: RevisionBody[] }>('GET', `/api/designs/${id}/revisions`)).items;

describe('revisions', () => {
  test('every saved state is one, with what it changed, errors included', async () => {
    const { id } = await app.createDesign(TEXT);
    await save(id, `${TEXT}  nonsense here\n`);
    await save(id, `${TEXT}  opened: date\n`);
    await save(id, `${TEXT}  opened: date\n`);
    const items = await revisionsOf(id);
    expect(items.map(({ number, what, valid, lines }) => [number, what, valid, lines])).toEqual([
      [3, 'text', true, { added: 1, removed: 1 }],
      [2, 'text', false, { added: 1, removed: 0 }],
      [1, 'begun', true, { added: 5, removed: 0 }],
    ]);
    expect((await app.json<RevisionBody>('GET', `/api/designs/${id}/revisions/2`)).text).toContain(
      'nonsense',
    );
    expect((await app.send('GET', `/api/designs/${id}/revisions/9`)).status).toBe(404);
    expect((await app.send('GET', `/api/designs/${id}/revisions/x`)).status).toBe(404);
  });

  test('an earlier state is made the latest, identities and decisions included', async () => {
    const design = await app.createDesign(TEXT);
    const path = `/api/designs/${design.id}`;
    await app.json('PUT', `${path}/choices`, { settings: { pageSize: 50 }, answered: ['id.kind'] });
    await save(design.id, TEXT.replace('name: text', 'title: text'));
    await app.json('PUT', `${path}/choices`, { settings: {}, answered: [] });
    const restored = await app.json<DesignBody>('POST', `${path}/revisions/2/restore`);
    expect(restored).toMatchObject({
      text: TEXT,
      revision: 5,
      choices: {
        settings: { pageSize: 50 },
        arrangements: [plainArrangement('main')],
        answered: ['id.kind'],
      },
    });
    expect(restored.identities).toEqual(design.identities);
    expect((await revisionsOf(design.id)).map(({ what }) => what)).toEqual([
      'restored',
      'choices',
      'text',
      'choices',
      'begun',
    ]);
    const late = await app.send('POST', `${path}/revisions/1/restore`, undefined, { 'If-Match': '"4"' });
    expect(late.status).toBe(412);
  });

  test('they come in pages', async () => {
    const { id } = await app.createDesign(TEXT);
    for (let index = 0; index < 4; index++) await save(id, `${TEXT}# ${index}\n`);
    const seen: number[] = [];
    for (let path: string | undefined = `/api/designs/${id}/revisions?limit=2`; path !== undefined;) {
      const response: Response = await app.send('GET', path);
      seen.push(...((await response.json()) as { items: RevisionBody[] }).items.map(({ number }) => number));
      path = /<([^>]+)>; rel="next"/.exec(response.headers.get('link') ?? '')?.[1];
    }
    expect(seen).toEqual([5, 4, 3, 2, 1]);
  });
});

describe('decisions', () => {
  test('a setting of the design reaches the contract, and a running mock', async () => {
    const { id } = await app.createDesign(TEXT);
    const mock = await app.createMock(id, { counts: { Route: 7 } });
    await app.json('PUT', `/api/designs/${id}/choices`, { settings: { pageSize: 3 }, answered: [] });
    const page = await eventually(async () => {
      const list = (await (await fetch(`${mock.baseUrls.main}/routes`)).json()) as { items: unknown[] };
      return list.items.length === 3 ? list.items : null;
    }, 'pages of three');
    expect(page).toHaveLength(3);
    const arrangement = await app.json<{ settings: { name: string; value: unknown; level: string }[] }>(
      'GET',
      `/api/designs/${id}/arrangements/main`,
    );
    expect(arrangement.settings.find(({ name }) => name === 'pageSize')).toMatchObject({
      value: 3,
      level: 'design',
    });
  });

  test('an arrangement has settings of its own, which a reset takes away', async () => {
    const { id } = await app.createDesign(TEXT);
    const path = `/api/designs/${id}/arrangements/main`;
    const settings = { basePath: '/own', version: '9', invalidStatus: 422 };
    const saved = await app.send('PUT', path, { settings }, { 'If-Match': '"1"' });
    expect([saved.status, saved.headers.get('etag')]).toEqual([200, '"2"']);
    expect((await app.json<{ root: string }>('GET', `${path}/contract`)).root).toBe('/own/9');
    expect((await app.send('PUT', path, { settings: {} }, { 'If-Match': '"1"' })).status).toBe(412);
    const wrong = await app.send('PUT', path, { settings: { implicitId: 'uuid', depth: 0 } });
    expect(wrong.status).toBe(400);
    expect(((await wrong.json()) as ProblemBody).errors?.map((error) => error.pointer)).toEqual([
      '/settings/implicitId',
      '/settings/depth',
    ]);
    await app.json('PUT', path, { settings: {} });
    expect((await app.json<{ root: string }>('GET', `${path}/contract`)).root).toBe('/api/v1');
  });

  test('ids of another kind wait for a reset, which makes them', async () => {
    const { id } = await app.createDesign(TEXT);
    const mock = await app.createMock(id);
    await app.json('PUT', `/api/designs/${id}/choices`, { settings: { implicitId: 'uuid' }, answered: [] });
    await eventually(async () => {
      const { obstacles } = await app.json<{ obstacles: string[] }>('GET', `/api/mocks/${mock.id}`);
      return obstacles.length > 0 ? obstacles : null;
    }, 'an obstacle');
    expect((await fetch(`${mock.baseUrls.main}/routes/1`)).status).toBe(200);
    await app.json('POST', `/api/mocks/${mock.id}/reset`);
    const list = (await (await fetch(`${mock.baseUrls.main}/routes`)).json()) as { items: { id: string }[] };
    expect(list.items[0]?.id).toMatch(/^[0-9a-f-]{36}$/);
  });

  test.each([
    [{ settings: { pageSize: 0 }, answered: [] }, '/settings/pageSize'],
    [{ settings: { colour: 1 }, answered: [] }, '/settings/colour'],
    [{ settings: {}, answered: [1] }, '/answered'],
    [{ settings: 3, answered: [] }, '/settings'],
  ])('%j is refused', async (body, pointer) => {
    const { id } = await app.createDesign(TEXT);
    const response = await app.send('PUT', `/api/designs/${id}/choices`, body);
    expect(response.status).toBe(400);
    expect(((await response.json()) as ProblemBody).errors?.map((error) => error.pointer)).toEqual([pointer]);
  });
});

describe('a rename that the texts do not show', () => {
  const RENAMED = TEXT.replace('length: integer', 'miles: decimal(0..)');

  test('is asked for, and told, it keeps the records of a running mock', async () => {
    const { id } = await app.createDesign(TEXT);
    const mock = await app.createMock(id, { counts: { Route: 2 } });
    const before = (await (await fetch(`${mock.baseUrls.main}/routes/1`)).json()) as { length: number };
    const saved = await save(id, RENAMED);
    expect(saved.possibleRenames).toEqual([{ kind: 'attribute', from: 'Route.length', to: 'Route.miles' }]);
    const rename = { from: 'Route.length', to: 'Route.miles', renamed: true };
    const told = await app.json<DesignBody>('POST', `/api/designs/${id}/renames`, rename);
    expect(told.identities['Route.miles']).toBe('Route.length');
    expect(told.possibleRenames).toEqual([]);
    const after = await eventually(async () => {
      const record = (await (await fetch(`${mock.baseUrls.main}/routes/1`)).json()) as { miles?: number };
      return record.miles === undefined ? null : record;
    }, 'the mock to take the rename over');
    expect(after.miles).toBe(before.length);
    expect((await revisionsOf(id))[0]?.what).toBe('rename');
  });

  test('is asked for no more once it is denied', async () => {
    const { id } = await app.createDesign(TEXT);
    await save(id, RENAMED);
    const rename = { from: 'Route.length', to: 'Route.miles', renamed: false };
    const told = await app.json<DesignBody>('POST', `/api/designs/${id}/renames`, rename);
    expect(told.possibleRenames).toEqual([]);
    expect(told.identities['Route.miles']).toBe('Route.miles');
    const again = await app.send('POST', `/api/designs/${id}/renames`, { ...rename, renamed: true });
    expect(again.status).toBe(200);
    expect(
      (await app.send('POST', `/api/designs/${id}/renames`, { ...rename, from: 'No.thing', renamed: true }))
        .status,
    ).toBe(409);
  });
});

describe('designs as wholes', () => {
  test('a removed design is gone with its mocks, and comes back with them and their records', async () => {
    const { id } = await app.createDesign(TEXT);
    const mock = await app.createMock(id, { counts: { Route: 1 } });
    const base = mock.baseUrls.main;
    await fetch(`${base}/routes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: 'Kept' }),
    });
    expect((await app.send('DELETE', `/api/designs/${id}`)).status).toBe(204);
    expect((await app.send('GET', `/api/designs/${id}`)).status).toBe(404);
    expect((await app.send('GET', `/api/mocks/${mock.id}`)).status).toBe(404);
    await expect(fetch(base)).rejects.toThrow();
    const listed = await app.json<{ items: DesignBody[] }>('GET', '/api/designs?limit=200');
    expect(listed.items.map((design) => design.id)).not.toContain(id);
    const back = await app.json<DesignBody>('POST', `/api/designs/${id}/restore`);
    expect(back.text).toBe(TEXT);
    expect(await (await fetch(`${base}/routes/2`)).json()).toMatchObject({ name: 'Kept' });
    expect((await app.send('POST', `/api/designs/${id}/restore`)).status).toBe(404);
  });

  test('a copy has the text, the identities and the decisions under another name', async () => {
    const { id } = await app.createDesign(TEXT);
    const renamed = await save(id, TEXT.replace('name: text', 'title: text'));
    await app.json('PUT', `/api/designs/${id}/choices`, { settings: { pageSize: 9 }, answered: ['a'] });
    const broken = await save(id, `${renamed.text}  broken line\n`);
    const copy = await app.json<DesignBody>('POST', `/api/designs/${id}/copy`, { name: 'Second' });
    expect(copy).toMatchObject({
      name: 'Second',
      revision: 1,
      text: broken.text.replace('"Test"', '"Second"'),
      identities: renamed.identities,
      choices: { settings: { pageSize: 9 }, answered: ['a'] },
    });
    expect(copy.diagnostics).toHaveLength(1);
  });

  test('another name is written into the text', async () => {
    const { id } = await app.createDesign(TEXT);
    const renamed = await app.json<DesignBody>('PUT', `/api/designs/${id}/name`, { name: 'Other' });
    expect(renamed).toMatchObject({ name: 'Other', text: TEXT.replace('Test', 'Other'), revision: 2 });
    expect((await app.send('PUT', `/api/designs/${id}/name`, { name: '' })).status).toBe(400);
  });

  test('a design leaves as one file and comes back the same', async () => {
    const { id } = await app.createDesign(TEXT);
    await save(id, TEXT.replace('name: text', 'title: text'));
    await app.json('PUT', `/api/designs/${id}/choices`, { settings: { pageSize: 5 }, answered: [] });
    const response = await app.send('GET', `/api/designs/${id}/file`);
    expect(response.headers.get('content-disposition')).toBe('attachment; filename=test.isomeros.json');
    const text = await response.text();
    expect((JSON.parse(text) as DesignFile).identities['Route.title']).toBe('Route.name');
    const source = { format: 'design', text };
    const opened = await app.json<DesignBody>('POST', '/api/designs', { source });
    expect(await (await app.send('GET', `/api/designs/${opened.id}/file`)).text()).toBe(text);
    const refused = await app.send('POST', '/api/designs', { source: { format: 'design', text: '{}' } });
    expect(refused.status).toBe(422);
    expect(((await refused.json()) as ProblemBody).errors?.map(({ pointer }) => pointer)).toContain(
      '/format',
    );
  });

  test('the notation alone leaves as a file of its own', async () => {
    const { id } = await app.createDesign(TEXT);
    const response = await app.send('GET', `/api/designs/${id}/model.iso.txt`);
    expect(response.headers.get('content-type')).toBe('text/vnd.isomeros.model; charset=utf-8');
    expect(response.headers.get('content-disposition')).toBe('attachment; filename=test.iso.txt');
    expect(await response.text()).toBe(TEXT);
  });
});
