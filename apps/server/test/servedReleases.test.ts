import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { eventually, sendJson } from './support/server.js';

const TEXT = `entity Route
  name: text(1..60), required
  state: choice(open, closed), default open

entity Sailing
  berth: text(1..4)

each Route owns many Sailing as sailings
`;

const EDITS = {
  /** Every old record satisfies it, and every new one the old model. */
  wider: TEXT.replace('  state:', '  kind: choice(ferry, taxi), required, default ferry\n  state:'),
  /** A new record can be what the old model does not know. */
  another: TEXT.replace('choice(open, closed)', 'choice(open, closed, seasonal)'),
  /** Other kinds of record. */
  larger: `${TEXT}\nentity Meal\n  name: text(1..20), required\n`,
};

interface Served extends MockBody {
  readonly releases: readonly string[];
  readonly releaseUrls: Readonly<Record<string, string>>;
}

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

/** A design with a release of its first text, whose text is another one by now. */
async function released(then: string): Promise<string> {
  const { id } = await app.createDesign(TEXT);
  await app.json('POST', `/api/designs/${id}/releases`, { label: '1.0', arrangement: 'main' });
  await app.json('PUT', `/api/designs/${id}/arrangements/main`, { settings: { version: 'v2' } });
  if (then !== TEXT) await app.json('PUT', `/api/designs/${id}/model`, { text: then });
  return id;
}

const start = (design: string, more: object = {}): Promise<Served> =>
  app.json('POST', '/api/mocks', {
    design,
    arrangements: ['main'],
    releases: ['1.0'],
    counts: { Route: 3, Sailing: 3 },
    ...more,
  });

const mocksOf = async (design: string): Promise<readonly Served[]> =>
  (await app.json<{ items: Served[] }>('GET', `/api/mocks?design=${design}`)).items;

const read = async (url: string): Promise<Record<string, unknown>> =>
  (await (await fetch(url)).json()) as Record<string, unknown>;

const urlOf = (mock: Served | undefined): string => mock?.releaseUrls['1.0'] ?? '';

describe('a release that a mock serves', () => {
  test('answers by its own contract, from the same records', async () => {
    const mock = await start(await released(TEXT));
    expect(mock.releases).toEqual(['1.0']);
    expect(urlOf(mock)).toMatch(/\/api\/v1$/);
    expect(mock.baseUrls.main).toMatch(/\/api\/v2$/);
    await sendJson(`${mock.baseUrls.main}/routes/1`, 'PATCH', { name: 'Renamed' });
    expect(await read(`${urlOf(mock)}/routes/1`)).toMatchObject({ name: 'Renamed' });
    const sent = await sendJson(`${urlOf(mock)}/routes`, 'POST', { name: 'By the release' });
    const { id } = (await sent.json()) as { id: number };
    expect(await read(`${mock.baseUrls.main}/routes/${id}`)).toMatchObject({ name: 'By the release' });
    await app.json('POST', `/api/mocks/${mock.id}/messages`, {
      message: 'GET /api/v1/routes/1 HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n',
      release: '1.0',
    });
    const { items } = await app.json<{ items: { arrangement: string }[] }>(
      'GET',
      `/api/mocks/${mock.id}/exchanges`,
    );
    expect(items[0]?.arrangement).toBe('release 1.0');
  });

  test('shares records with a wider model: each side writes what the other one fills in', async () => {
    const design = await released(EDITS.wider);
    const mock = await start(design);
    const sent = await sendJson(`${urlOf(mock)}/routes`, 'POST', { name: 'Old way' });
    const { id } = (await sent.json()) as { id: number };
    expect(await read(`${mock.baseUrls.main}/routes/${id}`)).toMatchObject({ kind: 'ferry' });
    const tag = sent.headers.get('etag') ?? '';
    const again = await fetch(`${urlOf(mock)}/routes/${id}`, { headers: { 'If-None-Match': tag } });
    expect(again.status).toBe(304);
    expect(await mocksOf(design)).toHaveLength(1);
  });

  test('gets the records there are before one is written that its model does not allow', async () => {
    const design = await released(EDITS.another);
    const mock = await start(design);
    const address = `${urlOf(mock)}/routes/1`;
    await sendJson(address, 'PATCH', { name: 'Before' });
    const written = await sendJson(`${mock.baseUrls.main}/routes/1`, 'PATCH', {
      name: 'After',
      state: 'seasonal',
    });
    expect(written.status).toBe(200);
    expect(await read(address)).toMatchObject({ name: 'Before' });
    const [first, second] = await mocksOf(design);
    expect(first?.releases).toEqual([]);
    expect(second?.releases).toEqual(['1.0']);
    expect(urlOf(second)).toBe(urlOf(mock));
    await sendJson(address, 'PATCH', { name: 'On its own' });
    expect(await read(address)).toMatchObject({ name: 'On its own' });
    expect(await read(`${mock.baseUrls.main}/routes/1`)).toMatchObject({ name: 'After', state: 'seasonal' });
  });

  test('loses no write that was acknowledged while it parts', async () => {
    const design = await released(EDITS.another);
    const mock = await start(design);
    const post = async (index: number): Promise<number> => {
      const sent = await sendJson(`${urlOf(mock)}/routes`, 'POST', { name: `Route ${index}` });
      expect(sent.status).toBe(201);
      return ((await sent.json()) as { id: number }).id;
    };
    const some = Array.from({ length: 20 }, (_, index) => post(index));
    const parting = sendJson(`${mock.baseUrls.main}/routes/1`, 'PATCH', { state: 'seasonal' });
    const more = Array.from({ length: 20 }, (_, index) => post(20 + index));
    const ids = await Promise.all([...some, ...more]);
    expect((await parting).status).toBe(200);
    expect(new Set(ids).size).toBe(40);
    for (const id of ids) expect((await fetch(`${urlOf(mock)}/routes/${id}`)).status).toBe(200);
  });

  test('gets a mock of its own at once where the kinds of record differ, and is reset by itself', async () => {
    const design = await released(EDITS.larger);
    const mock = await start(design);
    expect(mock.releases).toEqual([]);
    const own = (await mocksOf(design)).find(({ releases }) => releases.length > 0);
    expect(await read(`${urlOf(own)}/routes/1`)).toMatchObject({ id: 1 });
    expect((await fetch(`${urlOf(own)}/meals`)).status).toBe(404);
    await app.json('POST', `/api/mocks/${own?.id ?? ''}/reset`);
    expect(await read(`${urlOf(own)}/routes`)).toMatchObject({ page: { totalItems: 12 } });
  });

  test('parts when the model moves on to where it cannot follow', async () => {
    const design = await released(TEXT);
    const mock = await start(design);
    await app.json('PUT', `/api/designs/${design}/model`, { text: EDITS.larger });
    const parted = await eventually(async () => {
      const [, second] = await mocksOf(design);
      return second ?? null;
    }, 'the release to have a mock of its own');
    expect(urlOf(parted)).toBe(urlOf(mock));
    expect(await read(`${urlOf(mock)}/routes/1`)).toMatchObject({ id: 1 });
    const meal = await eventually(async () => {
      const sent = await sendJson(`${mock.baseUrls.main}/meals`, 'POST', { name: 'Soup' });
      return sent.status === 201 ? sent : null;
    }, 'the mock to serve the new entity');
    expect(meal.status).toBe(201);
    expect((await fetch(`${urlOf(mock)}/meals`)).status).toBe(404);
  });

  test('gets records of its own where it stores what is computed now, with the values they had', async () => {
    const stored = TEXT.replace('  berth: text(1..4)', '  seats: integer, required\n  twice: integer');
    const { id: design } = await app.createDesign(stored);
    await app.json('POST', `/api/designs/${design}/releases`, { label: '1.0', arrangement: 'main' });
    const mock = await start(design, { counts: { Route: 1, Sailing: 0 } });
    const sailings = '/routes/1/sailings';
    await sendJson(`${mock.baseUrls.main}${sailings}`, 'POST', { seats: 4, twice: 9 });
    const text = stored.replace('twice: integer', 'twice: integer, computed seats * 2');
    await app.json('PUT', `/api/designs/${design}/model`, { text });
    const migration = `/api/mocks/${mock.id}/migration`;
    await eventually(async () => {
      const { steps } = await app.json<{ steps: readonly unknown[] }>('GET', migration);
      return steps.length > 0 ? steps : null;
    }, 'the model to be waiting');
    await app.json('POST', migration, { decisions: { 'lost Sailing.twice': { do: 'drop' } } });
    const release = await eventually(async () => {
      const all = await mocksOf(design);
      return all.find(({ id, releases }) => id !== mock.id && releases.length > 0) ?? null;
    }, 'the release to have records of its own');
    const [ofRelease, ofMain] = [`${urlOf(release)}${sailings}/1`, `${mock.baseUrls.main}${sailings}/1`];
    expect(await read(ofRelease)).toMatchObject({ seats: 4, twice: 9 });
    expect(await read(ofMain)).toMatchObject({ seats: 4, twice: 8 });
    await sendJson(ofRelease, 'PATCH', { twice: 7 });
    expect(await read(ofRelease)).toMatchObject({ twice: 7 });
    expect(await read(ofMain)).toMatchObject({ twice: 8 });
  });

  test('may be served alone, and is not taken back meanwhile', async () => {
    const design = await released(EDITS.larger);
    const mock = await start(design, { arrangements: [], counts: { Route: 2 } });
    expect(await read(`${urlOf(mock)}/routes`)).toMatchObject({ page: { totalItems: 2 } });
    const refused = await app.send('DELETE', `/api/designs/${design}/releases/1.0`);
    expect(refused.status).toBe(409);
    expect(((await refused.json()) as ProblemBody).detail).toMatch(/A mock serves the release 1.0/);
    await app.send('DELETE', `/api/mocks/${mock.id}`);
    expect((await app.send('DELETE', `/api/designs/${design}/releases/1.0`)).status).toBe(204);
  });

  test.each([
    [{ arrangements: [], releases: [] }, 400, /at least one arrangement, or release/],
    [{ releases: ['2.0'] }, 404, /no release 2.0/],
    [{ releases: ['1.0', '1.0'] }, 400, undefined],
  ])('is asked for as it should be: %j', async (more, status, detail) => {
    const response = await app.send('POST', '/api/mocks', {
      design: await released(TEXT),
      arrangements: ['main'],
      ...more,
    });
    expect(response.status).toBe(status);
    const problem = (await response.json()) as ProblemBody;
    if (detail !== undefined) expect(problem.detail).toMatch(detail);
  });
});

describe('the end of a release', () => {
  const END = { deprecatedAt: '2026-11-01T00:00:00Z', sunsetAt: '2027-06-30T23:59:59Z' };

  test('is told in every answer, with where its successor is', async () => {
    const design = await released(TEXT);
    const mock = await start(design);
    const url = `${urlOf(mock)}/routes/1`;
    expect((await fetch(url)).headers.get('deprecation')).toBeNull();
    await app.json('PUT', `/api/designs/${design}/releases/1.0/end`, {
      ...END,
      successor: { arrangement: 'main' },
    });
    for (const answer of [
      await fetch(url),
      await fetch(`${url}/nowhere`),
      await fetch(url, { method: 'HEAD' }),
    ]) {
      expect(answer.headers.get('deprecation')).toBe('@1793491200');
      expect(answer.headers.get('sunset')).toBe('Wed, 30 Jun 2027 23:59:59 GMT');
      expect(answer.headers.get('link')).toContain(`<${mock.baseUrls.main}>; rel="successor-version"`);
    }
    expect((await fetch(`${mock.baseUrls.main}/routes/1`)).headers.get('deprecation')).toBeNull();
    await app.json('DELETE', `/api/designs/${design}/releases/1.0/end`);
    expect((await fetch(url)).headers.get('sunset')).toBeNull();
  });

  test.each([
    [{ deprecatedAt: 'soon' }, undefined],
    [{ deprecatedAt: END.sunsetAt, sunsetAt: END.deprecatedAt }, /does not stop before it is deprecated/],
    [{ ...END, successor: { release: '1.0' } }, /does not come after itself/],
    [{ ...END, successor: { release: '9.9' } }, /no release 9.9/],
    [{ ...END, successor: { arrangement: 'nobody' } }, /no arrangement nobody/],
    [{ ...END, successor: { page: '/' } }, /the label of a release, or the name of an arrangement/],
  ])('is refused where it makes no sense: %j', async (end, detail) => {
    const design = await released(TEXT);
    const response = await app.send('PUT', `/api/designs/${design}/releases/1.0/end`, end);
    expect([400, 404]).toContain(response.status);
    if (detail !== undefined) expect(((await response.json()) as ProblemBody).detail).toMatch(detail);
    expect(await app.json('GET', `/api/designs/${design}/releases/1.0`)).toMatchObject({ end: null });
  });
});
