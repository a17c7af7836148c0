import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { InspectedRecord, RecordTable } from '@isomeros/api';
import { TestApp, type MockBody, type ProblemBody } from './support/app.js';
import { sendJson } from './support/server.js';

const TEXT = `entity Route
  code: text(2..6), key
  name: text(1..60), required
  pin: text(4..8), write-only

entity Sailing
  berth: text(1..4)
  seats: integer(0..900), required
  state: choice(planned, departed), default planned
    depart: planned -> departed when seats > 0
  double: integer, computed seats * 2

each Route owns many Sailing as sailings, back as route
each Sailing refers to optional Route as next, back as before
each Route pairs with many Route as detours, back as detourOf
`;

const RECORDS = {
  Route: [
    { code: 'KS', name: 'Over', pin: '1234' },
    { code: 'TV', name: 'Round the sound' },
  ],
  Sailing: [
    { id: 1, route: 'KS', seats: 30, berth: 'B2', next: 'TV', state: 'planned' },
    { id: 2, route: 'KS', seats: 0, state: 'planned' },
    { id: 3, route: 'TV', seats: 120, berth: 'B10', state: 'departed' },
  ],
  'Route detours': [{ detourOf: 'KS', detour: 'TV' }],
};

let app: TestApp;
let mock: MockBody;
beforeAll(async () => {
  app = await TestApp.start();
  const { id } = await app.createDesign(TEXT);
  mock = await app.json<MockBody>('POST', '/api/mocks', { design: id, arrangements: ['main'] });
  await app.json('POST', `/api/mocks/${mock.id}/records?mode=replace`, RECORDS);
});
afterAll(() => app.close());

const pathOf = (type: string, query: Readonly<Record<string, string>> = {}): string =>
  `/api/mocks/${mock.id}/record-types/${encodeURIComponent(type)}/table?${new URLSearchParams(query).toString()}`;

const table = (type: string, query: Readonly<Record<string, string>> = {}): Promise<RecordTable> =>
  app.json<RecordTable>('GET', pathOf(type, query));

/** What stands in one column, row by row: values, and the keys of other records. */
async function column(
  name: string,
  query: Readonly<Record<string, string>>,
  type = 'Sailing',
): Promise<unknown[]> {
  const { columns, rows } = await table(type, query);
  const at = columns.findIndex((one) => one.name === name);
  return rows.map(({ cells }) => {
    const cell = cells[at];
    return cell?.kind === 'value' ? cell.value : cell?.kind === 'record' ? cell.to.key : cell?.kind;
  });
}

describe('the table of a record type', () => {
  test('has its key first, then its attributes, then what it points at', async () => {
    const { columns, total, found } = await table('Sailing');
    expect(columns.map(({ name, kind, type }) => [name, kind, type])).toEqual([
      ['id', 'key', 'integer(1..)'],
      ['berth', 'attribute', 'text(1..4)'],
      ['seats', 'attribute', 'integer(0..900)'],
      ['state', 'attribute', 'choice(planned, departed)'],
      ['double', 'computed', 'integer'],
      ['route', 'owner', 'Route'],
      ['next', 'reference', 'Route'],
    ]);
    expect([total, found]).toEqual([3, 3]);
  });

  test('names other records by their keys, and what people know them by', async () => {
    const { rows, columns } = await table('Sailing', { limit: '1' });
    expect(rows).toHaveLength(1);
    expect(rows[0]?.cells[columns.findIndex(({ name }) => name === 'next')]).toMatchObject({
      kind: 'record',
      to: { type: 'Route', key: 'TV', hint: 'Round the sound' },
    });
  });

  test.each<readonly [Readonly<Record<string, string>>, readonly number[]]>([
    [{}, [1, 2, 3]],
    [{ offset: '1', limit: '1' }, [2]],
    [{ sort: '-seats' }, [3, 1, 2]],
    [{ sort: 'berth' }, [3, 1, 2]],
    [{ sort: 'route', find: 'by seats desc' }, [1, 2, 3]],
    [{ find: 'where seats > 0' }, [1, 3]],
    [{ find: 'where state = planned and seats <= 30 by seats' }, [2, 1]],
    [{ find: 'where berth is unset' }, [2]],
    [{ find: 'where next = TV' }, [1]],
    [{ find: 'where double = 240' }, [3]],
    [{ find: 'b1' }, [3]],
    [{ find: 'nowhere' }, []],
  ])('%j are the sailings %j', async (query, ids) => {
    expect(await column('id', query)).toEqual(ids);
  });

  test('keeps secrets, and does not search them', async () => {
    expect(await column('pin', {}, 'Route')).toEqual(['secret', null]);
    expect((await table('Route', { find: '1234' })).found).toBe(0);
  });

  test('shows pairs by their sides', async () => {
    expect(await column('detourOf', {}, 'Route detours')).toEqual(['KS']);
    expect(await column('detourOf', { find: 'where detour = TV' }, 'Route detours')).toEqual(['KS']);
    expect(await column('detourOf', { find: 'where detour = KS' }, 'Route detours')).toEqual([]);
  });

  test.each<readonly [string, Readonly<Record<string, string>>, number, string]>([
    ['Boat', {}, 404, 'Boat'],
    ['Sailing', { find: 'where colour = red' }, 400, 'Sailing has no colour.'],
    [
      'Sailing',
      { find: 'where seats = many' },
      400,
      'seats is compared with an integer from 0 to 900. (column 7)',
    ],
    ['Sailing', { find: 'where seats = input least' }, 400, 'Nothing is sent here'],
    ['Sailing', { find: 'where seats' }, 400, 'one of'],
    ['Route', { find: 'where pin = 1' }, 400, 'pin is never returned'],
    ['Sailing', { sort: 'colour' }, 400, 'sorted by one of id, berth'],
    ['Route', { sort: 'pin' }, 400, 'sorted by one of code, name'],
    ['Sailing', { limit: '201' }, 400, '200'],
    ['Sailing', { offset: '-1' }, 400, 'from 0'],
    ['Route detours', { find: 'where colour = 1' }, 400, 'Route detours has no colour.'],
  ])('of %s for %j answers %d', async (type, query, status, says) => {
    const response = await fetch(`${app.url}${pathOf(type, query)}`);
    expect(response.status).toBe(status);
    expect(((await response.json()) as ProblemBody).detail).toContain(says);
  });
});

describe('one record', () => {
  const numberOf = async (type: string, at: number): Promise<number> =>
    (await table(type)).rows[at]?.number ?? 0;
  const inspected = async (type: string, at: number): Promise<InspectedRecord> =>
    app.json<InspectedRecord>(
      'GET',
      `/api/mocks/${mock.id}/record-types/${encodeURIComponent(type)}/table/${await numberOf(type, at)}`,
    );

  test('tells what refers to it, and what would go with it', async () => {
    const { link, referring, removal } = await inspected('Route', 0);
    expect(link).toMatchObject({ type: 'Route', key: 'KS', hint: 'Over' });
    expect(referring.map(({ type, by, records }) => [type, by.kind, by.role, records])).toEqual([
      ['Sailing', 'owns', 'sailings', 2],
      ['Route detours', 'refers', 'detourOf', 1],
    ]);
    expect(removal).toMatchObject({
      allowed: true,
      tree: {
        type: 'Route',
        records: 1,
        below: [
          { type: 'Sailing', effect: 'removed', records: 2 },
          { type: 'Route detours', effect: 'removed', records: 1 },
        ],
      },
    });
  });

  test('tells what stands against its removal', async () => {
    const { removal } = await inspected('Route', 1);
    expect(removal).toMatchObject({ allowed: false, blocking: 1, first: [{ type: 'Sailing', key: 1 }] });
  });

  test('tells which transitions its state allows', async () => {
    expect((await inspected('Sailing', 0)).transitions).toEqual(['depart']);
    expect((await inspected('Sailing', 1)).transitions).toEqual([]);
  });

  test('has versions, each with the exchange that made it', async () => {
    await sendJson(`${mock.baseUrls.main}/routes/KS/sailings/1`, 'PATCH', { seats: 31 });
    const { versions, version } = await inspected('Sailing', 0);
    expect(versions).toMatchObject([{ version, operation: 'changeSailing', changed: ['seats'] }]);
  });

  test('is not found where it is gone, or of another type', async () => {
    const gone = await fetch(`${app.url}/api/mocks/${mock.id}/record-types/Route/table/999999`);
    expect(gone.status).toBe(404);
    const other = await numberOf('Sailing', 0);
    const response = await fetch(`${app.url}/api/mocks/${mock.id}/record-types/Route/table/${other}`);
    expect(response.status).toBe(404);
  });
});

test('an exchange that removes several records tells how they hang together', async () => {
  const removed = await fetch(`${mock.baseUrls.main}/routes/KS`, { method: 'DELETE' });
  expect(removed.status).toBe(204);
  const { items } = await app.json<{ items: { number: number }[] }>('GET', `/api/mocks/${mock.id}/exchanges`);
  const exchange = await app.json<{ removed: unknown }>(
    'GET',
    `/api/mocks/${mock.id}/exchanges/${items[0]?.number}`,
  );
  const node = (type: string, by: unknown, records: number, below: readonly unknown[] = []): unknown => ({
    type,
    by,
    effect: 'removed',
    records,
    below,
  });
  expect(exchange.removed).toEqual([
    node('Route', null, 1, [
      node('Sailing', { kind: 'owns', role: 'sailings' }, 2),
      node('Route detours', { kind: 'refers', role: 'detourOf' }, 1),
    ]),
  ]);
});
