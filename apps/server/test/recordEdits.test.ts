import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type {
  Exchange,
  ExchangeSummary,
  InspectedRecord,
  Mock,
  NewEdits,
  RecordTable,
  WrittenEdits,
} from '@isomeros/api';
import type { RecordEdit, TableRecord } from '@isomeros/core/records';
import { createSchema, dropSchema } from './support/database.js';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';

const TEXT = `entity Route
  code: text(2..6), key
  name: text(1..60), required

entity Sailing
  berth: text(1..4)
  seats: integer(0..900), required, read-only, default 10
  state: choice(planned, departed), default planned
    depart: planned -> departed

each Route owns many Sailing as sailings, back as route
`;

const RECORDS = {
  Route: [
    { code: 'KS', name: 'Over' },
    { code: 'TV', name: 'Round the sound' },
  ],
  Sailing: [
    { id: 1, route: 'KS', seats: 30, berth: 'B2', state: 'planned' },
    { id: 2, route: 'KS', seats: 0, state: 'planned' },
  ],
};

let app: TestApp;
let schema: string;
let mock: MockBody;
beforeAll(async () => {
  schema = await createSchema();
  app = await TestApp.start({ databaseUrl: schema });
});
beforeEach(async () => {
  const { id } = await app.createDesign(TEXT);
  mock = await app.createMock(id);
  await app.json('POST', `/api/mocks/${mock.id}/records?mode=replace`, RECORDS);
});
afterAll(async () => {
  await app.stop();
  await dropSchema(schema);
});

const rows = async (type: string): Promise<readonly TableRecord[]> =>
  (await app.json<RecordTable>('GET', `/api/mocks/${mock.id}/record-types/${type}/table?limit=200`)).rows;

/** What stands in one column of the records of a type. */
async function column(type: string, name: string): Promise<unknown[]> {
  const path = `/api/mocks/${mock.id}/record-types/${type}/table?limit=200`;
  const { columns, rows: all } = await app.json<RecordTable>('GET', path);
  const at = columns.findIndex((one) => one.name === name);
  return all.map(({ cells }) => {
    const cell = cells[at];
    return cell?.kind === 'value' ? cell.value : cell?.kind;
  });
}

const write = (edits: readonly RecordEdit[], more: Partial<NewEdits> = {}): Promise<WrittenEdits> =>
  app.json('POST', `/api/mocks/${mock.id}/record-edits`, { edits, ...more });

const exchanges = async (): Promise<readonly ExchangeSummary[]> =>
  (await app.json<{ items: ExchangeSummary[] }>('GET', `/api/mocks/${mock.id}/exchanges`)).items;

const changed = (
  { number, version }: TableRecord,
  values: Readonly<Record<string, string | number>>,
): RecordEdit => ({ kind: 'change', type: 'Sailing', number, version, values });

describe('edits of records', () => {
  test('are exchanges of one write, which one undo takes back', async () => {
    const [first, second] = await rows('Sailing');
    if (first === undefined || second === undefined) throw new Error('There are two sailings.');
    const { written, exchanges: numbers } = await write([
      changed(first, { berth: 'C1', state: 'departed' }),
      { kind: 'add', type: 'Route', values: { code: 'NEW', name: 'Lately' } },
      { kind: 'remove', type: 'Sailing', number: second.number, version: second.version },
    ]);
    expect(written).toBe(true);
    const told = (await exchanges()).filter(({ number }) => numbers.includes(number));
    expect(told.map(({ client, method, target, status }) => [client, method, target, status])).toEqual(
      expect.arrayContaining([
        ['here', 'PATCH', '/api/v1/routes/KS/sailings/1', 200],
        ['here', 'POST', '/api/v1/routes/KS/sailings/1/depart', 200],
        ['here', 'POST', '/api/v1/routes', 201],
        ['here', 'DELETE', '/api/v1/routes/KS/sailings/2', 204],
      ]),
    );
    const { records } = await app.json<Exchange>('GET', `/api/mocks/${mock.id}/exchanges/${numbers[0]}`);
    expect(records).toEqual([
      expect.objectContaining({
        effect: 'changed',
        before: expect.objectContaining({ berth: 'B2' }) as unknown,
        after: expect.objectContaining({ berth: 'C1', state: 'planned' }) as unknown,
      }),
    ]);
    expect(await column('Sailing', 'berth')).toEqual(['C1']);
    await app.json('POST', `/api/mocks/${mock.id}/undo`);
    expect(await column('Sailing', 'berth')).toEqual(['B2', null]);
    expect(await column('Route', 'code')).toEqual(['KS', 'TV']);
  });

  test('are told before: what would be sent to remove a record, and nothing is sent', async () => {
    const [first] = await rows('Sailing');
    const path = `/api/mocks/${mock.id}/record-types/Sailing/table/${first?.number ?? 0}`;
    const before = await exchanges();
    const { removedBy } = await app.json<InspectedRecord>('GET', path);
    expect(removedBy).toEqual([{ arrangement: 'main', request: 'DELETE /api/v1/routes/KS/sailings/1' }]);
    expect(await exchanges()).toEqual(before);
  });

  test('are refused whole: only what was refused is in the journal, and nothing is written', async () => {
    const [first, second] = await rows('Sailing');
    if (first === undefined || second === undefined) throw new Error('There are two sailings.');
    const before = (await exchanges()).length;
    const {
      written,
      exchanges: numbers,
      problems,
    } = await write([
      changed(first, { berth: 'C1' }),
      changed(second, { berth: 'PIER2' }),
      changed(second, { seats: 4 }),
    ]);
    expect(written).toBe(false);
    expect(problems).toEqual([
      expect.objectContaining({ edit: 1, column: 'berth', status: 400 }),
      expect.objectContaining({ edit: 2, column: 'seats', status: 400 }),
    ]);
    expect(numbers).toHaveLength(2);
    expect(await exchanges()).toHaveLength(before + 2);
    expect(await column('Sailing', 'berth')).toEqual(['B2', null]);
  });

  test('go around the contract where that is asked for, in one write, and never around the model', async () => {
    const [first, second] = await rows('Sailing');
    if (first === undefined || second === undefined) throw new Error('There are two sailings.');
    const around = { way: 'around' } as const;
    const edits = [changed(first, { seats: 4, state: 'departed' }), changed(second, { berth: 'D4' })];
    expect(await write(edits, around)).toEqual({ written: true, exchanges: [], problems: [] });
    expect(await column('Sailing', 'seats')).toEqual([4, 0]);
    expect(await column('Sailing', 'state')).toEqual(['departed', 'planned']);
    await app.json('POST', `/api/mocks/${mock.id}/undo`);
    expect(await column('Sailing', 'seats')).toEqual([30, 0]);
    const [now] = await rows('Sailing');
    if (now === undefined) throw new Error('There are two sailings.');
    const wrong = await write([changed(now, { berth: 'PIER2' })], around);
    expect(wrong).toMatchObject({ written: false, problems: [{ edit: 0, column: 'berth', status: null }] });
  });

  test('are kept when the server is started again', async () => {
    const [first] = await rows('Sailing');
    if (first === undefined) throw new Error('There are two sailings.');
    await write([changed(first, { berth: 'Z9' })]);
    await app.stop();
    app = await TestApp.start({ databaseUrl: schema });
    expect(await column('Sailing', 'berth')).toEqual(['Z9', null]);
    expect((await app.json<Mock>('GET', `/api/mocks/${mock.id}`)).records).toBe(4);
  });

  test.each<readonly [string, object, string]>([
    ['no edits', { edits: [] }, '/edits'],
    ['an edit of another kind', { edits: [{ kind: 'move', type: 'Route' }] }, '/edits/0/kind'],
    ['no number', { edits: [{ kind: 'remove', type: 'Route' }] }, '/edits/0/number'],
    ['no version', { edits: [{ kind: 'change', type: 'Route', number: 1 }] }, '/edits/0/version'],
    ['no values', { edits: [{ kind: 'add', type: 'Route' }] }, '/edits/0/values'],
    [
      'another arrangement',
      { edits: [{ kind: 'add', type: 'Route', values: {} }], arrangement: 'none' },
      '/arrangement',
    ],
  ])('are not taken with %s', async (_what, body, pointer) => {
    const response = await app.send('POST', `/api/mocks/${mock.id}/record-edits`, body);
    const { errors } = (await response.json()) as ProblemBody;
    expect([response.status, errors?.[0]]).toEqual([400, expect.objectContaining({ pointer })]);
  });

  test('have names of columns that are just names', async () => {
    const values = JSON.parse('{"code":"PR","name":"Plain","__proto__":"x","constructor":1}') as object;
    const response = await app.send('POST', `/api/mocks/${mock.id}/record-edits`, {
      edits: [{ kind: 'add', type: 'Route', values }],
    });
    const { written, problems } = (await response.json()) as WrittenEdits;
    expect([response.status, written]).toEqual([200, false]);
    expect(problems.map((one) => one.column)).toEqual(expect.arrayContaining(['constructor']));
  });
});
