import type { CreatedDesign, InitialRecords, Mock, SeedSettings } from '@isomeros/api';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { TestApp, type DesignBody, type MockBody, type ProblemBody } from './support/app.js';
import { createSchema } from './support/database.js';
import { sendJson } from './support/server.js';
import { TEST_SETTINGS } from './support/settings.js';

let app: TestApp;
beforeAll(async () => {
  app = await TestApp.start();
});
afterAll(() => app.close());

const FERRIES = `CREATE TABLE harbours (code char(3) PRIMARY KEY, name varchar(40) NOT NULL);
CREATE TABLE routes (
  id int AUTO_INCREMENT PRIMARY KEY,
  origin char(3) NOT NULL REFERENCES harbours (code),
  fare decimal(6,2) NOT NULL DEFAULT 0
);
CREATE TABLE sailings (
  id int AUTO_INCREMENT PRIMARY KEY,
  route_id int NOT NULL,
  departs_at datetime NOT NULL,
  FOREIGN KEY (route_id) REFERENCES routes (id) ON DELETE CASCADE
);
INSERT INTO harbours VALUES ('KSH', 'Kestrel Head'), ('WKH', 'Wick Haven');
INSERT INTO routes (id, origin, fare) VALUES (7, 'KSH', 12.50), (9, 'XXX', 3);
INSERT INTO sailings VALUES (40, 7, '2026-06-14 09:30:00'), (41, 9, '2026-06-14 10:30:00');
`;

const create = (more: object = {}, source: object = {}): Promise<CreatedDesign> =>
  app.json('POST', '/api/designs', {
    name: 'Ferries',
    source: { format: 'sql', text: FERRIES, ...source },
    ...more,
  });

const items = async (url: string): Promise<readonly Record<string, unknown>[]> =>
  ((await (await fetch(url)).json()) as { items: Record<string, unknown>[] }).items;

const names = async ({ baseUrls }: MockBody): Promise<readonly unknown[]> =>
  (await items(`${baseUrls.main}/harbours`)).map(({ name }) => name);

const summary = (design: string): Promise<InitialRecords> =>
  app.json('GET', `/api/designs/${design}/initial-records`);

const mockOf = (id: string): Promise<Mock> => app.json('GET', `/api/mocks/${id}`);

/** Saves another text of the model in the place of the one there is. */
const edit = async (design: string, from: string, to: string): Promise<void> => {
  const { text } = await app.json<DesignBody>('GET', `/api/designs/${design}`);
  expect(text).toContain(from);
  await app.json('PUT', `/api/designs/${design}/model`, { text: text.replace(from, to) });
};

describe('the records of a source are the data', () => {
  test('a mock begins with them: ids are keys, references lead, counters go on', async () => {
    const { id, report, initialRecords } = await create();
    expect(initialRecords).toBe(4);
    expect(report?.counts.find(({ kind }) => kind === 'records')).toEqual({
      kind: 'records',
      found: 6,
      understood: 4,
      asked: 0,
      leftOut: 2,
    });
    expect(report?.leftOut.map(({ line, source, why }) => [line, source, why])).toEqual([
      [14, 'Route 9: origin, Harbour XXX', 'It refers to a record that is not there.'],
      [15, 'Sailing 41', 'Its route is left out.'],
    ]);
    const mock = await app.createMock(id);
    expect([mock.records, mock.initialRecords, mock.adjustments]).toEqual([4, true, []]);
    expect(await names(mock)).toEqual(['Kestrel Head', 'Wick Haven']);
    const base = mock.baseUrls.main;
    expect(await items(`${base}/routes/7/sailings`)).toMatchObject([
      { id: 40, departsAt: '2026-06-14T09:30:00Z' },
    ]);
    const made = await sendJson(`${base}/routes`, 'POST', { fare: 3, originCode: 'WKH' });
    expect(made.headers.get('location')).toBe('/api/v1/routes/8');
    await app.json('POST', `/api/mocks/${mock.id}/reset`);
    expect((await items(`${base}/routes`)).map(({ id: key }) => key)).toEqual([7]);
    expect(await summary(id)).toMatchObject({
      records: 4,
      types: [
        { type: 'Harbour', records: 2 },
        { type: 'Route', records: 1 },
        { type: 'Sailing', records: 1 },
      ],
    });
  });

  test('what is said about seed records goes before them, and they can be taken up again', async () => {
    const { id } = await create();
    for (const said of [{ counts: { Harbour: 5 } }, { seed: 3 }, { initialRecords: false }])
      expect((await app.createMock(id, said)).initialRecords).toBe(false);
    expect(await names(await app.createMock(id, { counts: { Harbour: 5 } }))).toHaveLength(5);
    const both = await app.send('POST', '/api/mocks', {
      design: id,
      arrangements: ['main'],
      seed: 3,
      initialRecords: true,
    });
    expect([both.status, ((await both.json()) as ProblemBody).errors?.[0]?.pointer]).toEqual([
      400,
      '/initialRecords',
    ]);
    const mock = await app.createMock(id);
    const plan = `/api/mocks/${mock.id}/seed-plan`;
    expect(await app.json('GET', plan)).toMatchObject({ initialRecords: true });
    await app.json('PUT', plan, { counts: { Harbour: 3 } });
    await app.json('POST', `/api/mocks/${mock.id}/reset`);
    expect(await names(mock)).toHaveLength(3);
    const settings = await app.json<SeedSettings>('GET', plan);
    await app.json('PUT', plan, { ...settings, initialRecords: true });
    await app.json('POST', `/api/mocks/${mock.id}/reset`);
    expect(await names(mock)).toEqual(['Kestrel Head', 'Wick Haven']);
  });

  test('a design without any has seed records, and says so where they are asked for', async () => {
    const { id, initialRecords } = await create({ records: false });
    expect(initialRecords).toBe(0);
    const { initialRecords: begins, records } = await app.createMock(id);
    expect([begins, records > 4]).toEqual([false, true]);
    const asked = { design: id, arrangements: ['main'], initialRecords: true };
    expect((await app.send('POST', '/api/mocks', asked)).status).toBe(400);
    expect(await summary(id)).toEqual({ records: 0, keptAt: null, types: [] });
  });

  test('they can be removed; mocks that began with them are seeded from the next reset on', async () => {
    const { id } = await create();
    const mock = await app.createMock(id);
    expect((await app.send('DELETE', `/api/designs/${id}/initial-records`)).status).toBe(204);
    expect((await app.send('DELETE', `/api/designs/${id}/initial-records`)).status).toBe(404);
    expect(await names(mock)).toEqual(['Kestrel Head', 'Wick Haven']);
    await app.json('POST', `/api/mocks/${mock.id}/reset`);
    expect((await names(mock)).length).toBeGreaterThan(2);
  });
});

describe('initial records under a model that was edited', () => {
  test('are brought to it at start and reset, and what does not fit is told', async () => {
    const { id } = await create();
    const before = await app.createMock(id);
    await edit(
      id,
      'name: text(..40), required',
      'title: text(..6), required\n  berths: integer(1..9), required',
    );
    await app.json('POST', `/api/mocks/${before.id}/reset`);
    const after = await app.createMock(id);
    for (const mock of [await mockOf(before.id), after]) {
      expect(mock.records).toBe(4);
      expect(mock.adjustments).toHaveLength(3);
      expect(mock.adjustments.join('\n')).toMatch(
        /Harbour\.name.* goes.*\n.*Harbour\.title is required.*\n.*berths/s,
      );
    }
    const [first] = await items(`${after.baseUrls.main}/harbours`);
    expect(first).toMatchObject({ code: 'KSH', title: expect.any(String), berths: expect.any(Number) });
  });

  test('keep what is only renamed, widened or added', async () => {
    const { id } = await create();
    await edit(
      id,
      'fare: decimal(scale 2), required, default 0',
      'fare: decimal(0..), required, default 0\n  note: text',
    );
    const mock = await app.createMock(id);
    expect(mock.adjustments).toEqual([]);
    expect(await items(`${mock.baseUrls.main}/routes`)).toMatchObject([{ id: 7, fare: 12.5 }]);
  });

  test('a start is never refused: what there must be is made', async () => {
    const { id } = await create();
    await edit(
      id,
      'each Route',
      'entity Timetable\n  season: text(1..9), required, unique\n\neach Route owns one Timetable as timetable\neach Route',
    );
    const mock = await app.createMock(id);
    expect(mock.adjustments).toHaveLength(1);
    expect((await fetch(`${mock.baseUrls.main}/routes/7/timetable`)).status).toBe(200);
  });
});

test('a design with more of them than a mock holds has seed records, and says so', async () => {
  const databaseUrl = await createSchema();
  const roomy = await TestApp.start({ databaseUrl });
  const many = Array.from({ length: 600 }, (_, at) => `(${at + 1}, 'Harbour ${at}')`).join();
  const text = `CREATE TABLE harbours (id int PRIMARY KEY, name varchar(40));INSERT INTO harbours VALUES ${many};`;
  const source = { format: 'sql', text };
  const { id, initialRecords } = await roomy.json<CreatedDesign>('POST', '/api/designs', { source });
  expect(initialRecords).toBe(600);
  await roomy.stop();
  const limits = { ...TEST_SETTINGS.limits, records: 500 };
  const narrow = await TestApp.start({ databaseUrl, limits });
  try {
    const mock = await narrow.createMock(id);
    expect(mock.adjustments).toEqual([
      'A mock holds at most 500 records; the design has 600. Seed records are taken instead.',
    ]);
    expect(mock.records).toBeGreaterThan(0);
    expect(await names(mock)).not.toContain('Harbour 0');
  } finally {
    await narrow.close();
  }
});

describe('initial records travel with their design', () => {
  test('copies and files carry them, where it is not said otherwise, and say so', async () => {
    const { id } = await create();
    await edit(id, 'name: text(..40), required', 'name: text(..80), required');
    const copies = [{ name: 'Copy' }, { name: 'Bare', records: false }].map((body) =>
      app.json<DesignBody>('POST', `/api/designs/${id}/copy`, body),
    );
    expect((await Promise.all(copies)).map(({ initialRecords }) => initialRecords)).toEqual([4, 0]);
    const files = ['', '?records=true', '?records=false'].map(async (query) => {
      const text = await (await app.send('GET', `/api/designs/${id}/file${query}`)).text();
      const begun = (more: object): Promise<DesignBody> =>
        app.json('POST', '/api/designs', { source: { format: 'design', text }, ...more });
      const [whole, bare] = [await begun({}), await begun({ records: false })];
      if (whole.initialRecords > 0)
        expect(await names(await app.createMock(whole.id))).toEqual(['Kestrel Head', 'Wick Haven']);
      return [text.includes('initialRecords'), whole.initialRecords, bare.initialRecords];
    });
    expect(await Promise.all(files)).toEqual([
      [true, 4, 0],
      [true, 4, 0],
      [false, 0, 0],
    ]);
  });

  test('a file whose records do not fit the model they stand with says which', async () => {
    const { id } = await create();
    const text = await (await app.send('GET', `/api/designs/${id}/file`)).text();
    const wrong = text.replace('"origin":"KSH"', '"origin":"NOW"');
    const refused = await app.send('POST', '/api/designs', { source: { format: 'design', text: wrong } });
    expect(refused.status).toBe(422);
    const { errors } = (await refused.json()) as ProblemBody;
    expect(errors?.map(({ pointer }) => pointer)).toEqual(['/initialRecords/records/Route/0/origin']);
  });
});

describe('the questions of a source can be answered', () => {
  test('by their indexes; what is not asked is refused', async () => {
    const { report, text } = await create();
    const question = report?.asked.findIndex(({ options }) => options[1]?.label === 'yes, it refers to it');
    expect(text).toContain('each Route owns many Sailing');
    const answered = await create({}, { answers: { [String(question)]: 1 } });
    expect(answered.text).toContain('each Sailing refers to one Route');
    expect(answered.initialRecords).toBe(4);
    for (const answers of [{ 99: 0 }, { [String(question)]: 9 }, { x: 0 }, { [String(question)]: 'no' }]) {
      const refused = await app.send('POST', '/api/designs', {
        source: { format: 'sql', text: FERRIES, answers },
      });
      const { errors } = (await refused.json()) as ProblemBody;
      expect([refused.status, errors?.map(({ pointer }) => pointer)]).toEqual([
        400,
        Object.keys(answers).map((key) => `/source/answers/${key}`),
      ]);
    }
  });

  test('what one record is, is said', async () => {
    const { text } = await app.json<DesignBody>('POST', '/api/designs', {
      source: { format: 'records', text: '[{"id": 4, "name": "A"}]', record: 'berth' },
    });
    expect(text).toContain('entity Berth');
  });
});
