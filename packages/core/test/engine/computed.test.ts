import { describe, expect, test } from '@jest/globals';
import { operationKey, type SettingValues } from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { dividedBy, rational, rounded } from '@isomeros/core/model';
import { componentSchemas, openApiDocument } from '@isomeros/core/publication';
import fc from 'fast-check';
import { arranged } from '../support/arrangement.js';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';
import { PublishedSchemas } from '../support/schemas.js';
import { rounds } from '../support/rounds.js';

const TEXT = `entity Sailing
  capacity: integer
  departsAt: instant
  lasts: duration
  changedAt: instant, touched
  arrivesAt: instant, computed departsAt + lasts
  double: integer, computed capacity * 2
  booked: integer, computed sum of bookings.seats where state = confirmed
  left: integer, computed capacity - booked
  dearest: decimal, computed max of bookings.fare
  usual: decimal(scale 2), computed average of bookings.fare

entity Booking
  seats: integer, required
  fare: decimal(0.., scale 2)
  state: choice(held, confirmed), default held
  total: decimal(scale 2), computed seats * fare
  label: text, computed "seats: " & seats

each Sailing owns many Booking as bookings, back as sailing
`;

const mockOf = (): TestMock => new TestMock(modelOf(TEXT), { Sailing: 0, Booking: 0 }, arranged({}));
const SAILING = '/api/v1/sailings/1';
const send = (mock: TestMock, method: string, path: string, body?: object): Answer => {
  const answer = mock.send(method, `/api/v1${path}`, body);
  expect([method, path, answer.status < 300]).toEqual([method, path, true]);
  return answer;
};
const sailing = (mock: TestMock): Record<string, unknown> =>
  mock.send('GET', SAILING).body as Record<string, unknown>;

describe('a computed member', () => {
  const mock = mockOf();
  send(mock, 'POST', '/sailings', { capacity: 10, departsAt: '2026-01-31T22:00:00Z', lasts: 'P1MT3H' });

  test('is made of its own record, by the calendar of UTC', () => {
    expect(sailing(mock)).toMatchObject({ double: 20, arrivesAt: '2026-03-01T01:00:00Z' });
  });

  test('is made of others, of which unset ones are passed over', () => {
    expect(sailing(mock)).toMatchObject({ booked: 0, left: 10, dearest: null, usual: null });
    for (const [seats, fare, state] of [
      [2, 10, 'confirmed'],
      [3, 0.25, 'confirmed'],
      [4, null, 'held'],
    ] as const)
      send(mock, 'POST', '/sailings/1/bookings', { seats, fare, state });
    expect(sailing(mock)).toMatchObject({ booked: 5, left: 5, dearest: 10, usual: 5.12 });
    expect(mock.send('GET', `${SAILING}/bookings/2`).body).toMatchObject({ total: 0.75, label: 'seats: 3' });
    expect(mock.send('GET', `${SAILING}/bookings/3`).body).toMatchObject({ total: null });
  });

  test('is never taken, and may be sent back as it was read', () => {
    expect(mock.send('POST', '/api/v1/sailings', { capacity: 1, double: 2 }).status).toBe(400);
    const read = sailing(mock);
    expect(mock.send('PUT', SAILING, { ...read, capacity: 20, double: 1 }).body).toMatchObject({
      double: 40,
    });
    expect(mock.send('PATCH', SAILING, { left: 3, capacity: 10 }).body).toMatchObject({ left: 5 });
  });

  test('narrows and sorts a list where it reads its own record alone', () => {
    const bookings = (query: string): unknown =>
      (mock.send('GET', `${SAILING}/bookings?${query}`).body as { items?: { id: number }[] }).items?.map(
        ({ id }) => id,
      );
    expect(bookings('total[gt]=1')).toEqual([1]);
    expect(bookings('total[unset]=true')).toEqual([3]);
    expect(bookings('label=seats:%203')).toEqual([2]);
    expect(bookings('sort=-total')).toEqual([3, 1, 2]);
    for (const query of ['left=5', 'sort=left', 'booked[gt]=1'])
      expect(mock.send('GET', `/api/v1/sailings?${query}`).status).toBe(400);
  });

  test('finds a record in its order after every change of it', () => {
    const table = new TestMock(
      modelOf('entity Box\n  sides: integer\n  double: integer, computed sides * 2\n'),
      { Box: 0 },
      arranged({}),
    );
    const ids = (query: string): unknown =>
      (table.send('GET', `/api/v1/boxes?${query}`).body as { items: { id: number }[] }).items.map(
        ({ id }) => id,
      );
    for (const sides of [1, 2, 3]) send(table, 'POST', '/boxes', { sides });
    expect([ids('sort=double'), ids('double=4')]).toEqual([[1, 2, 3], [2]]);
    send(table, 'PATCH', '/boxes/1', { sides: 9 });
    expect([ids('sort=double'), ids('double=18'), ids('double=2')]).toEqual([[2, 3, 1], [1], []]);
    send(table, 'DELETE', '/boxes/3');
    expect([ids('sort=-double'), ids('double=6')]).toEqual([[1, 2], []]);
  });

  test('of others has a tag that changes with them, and no date', () => {
    const read = mock.send('GET', SAILING);
    expect(read.headers.get('last-modified')).toBeUndefined();
    const same = mock.send('GET', SAILING, undefined, { 'if-none-match': read.headers.get('etag') ?? '' });
    expect(same.status).toBe(304);
    const list = mock.send('GET', '/api/v1/sailings').headers.get('etag');
    send(mock, 'PATCH', '/sailings/1/bookings/3', { state: 'confirmed' });
    const after = mock.send('GET', SAILING);
    expect(after.body).toMatchObject({ booked: 9 });
    expect(after.headers.get('etag')).not.toBe(read.headers.get('etag'));
    expect(mock.send('GET', '/api/v1/sailings').headers.get('etag')).not.toBe(list);
    const stale = mock.send(
      'PATCH',
      SAILING,
      { capacity: 1 },
      { 'if-match': read.headers.get('etag') ?? '' },
    );
    expect(stale.status).toBe(412);
  });

  test('is published as what nobody sends', () => {
    const schemas = componentSchemas(mock.service.contract) as Record<
      string,
      { properties: Record<string, object> }
    >;
    expect(Object.keys(schemas['Booking.create']?.properties ?? {})).not.toContain('total');
    expect(schemas['Booking']?.properties['total']).toMatchObject({ type: ['number', 'null'] });
  });
});

interface Kept {
  readonly seats: number;
  readonly fare: number | null;
  readonly state: string;
}

test('after any requests it is what a plain evaluation gives, and no tag stands for two bodies', () => {
  const booking = fc.record({
    seats: fc.integer({ min: 0, max: 9 }),
    fare: fc.option(fc.integer({ min: 0, max: 999 }).map((cents) => cents / 100)),
    state: fc.constantFrom('held', 'confirmed'),
  });
  const step = fc.oneof(
    booking.map((body) => ({ kind: 'add', body }) as const),
    fc.record({ kind: fc.constant('change' as const), pick: fc.nat(), body: booking }),
    fc.record({ kind: fc.constant('remove' as const), pick: fc.nat() }),
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      const mock = mockOf();
      const schemas = new PublishedSchemas(openApiDocument(mock.service.contract));
      send(mock, 'POST', '/sailings', { capacity: 10 });
      const kept = new Map<number, Kept>();
      const bodies = new Map<string, string>();
      for (const one of steps) {
        const ids = [...kept.keys()];
        if (one.kind === 'add') {
          const { body } = send(mock, 'POST', '/sailings/1/bookings', one.body);
          kept.set((body as { id: number }).id, one.body);
        } else if (ids.length > 0) {
          const id = ids[one.pick % ids.length] ?? 0;
          const at = `/sailings/1/bookings/${id}`;
          if (one.kind === 'remove') {
            send(mock, 'DELETE', at);
            kept.delete(id);
          } else {
            send(mock, 'PATCH', at, one.body);
            kept.set(id, one.body);
          }
        }
        const read = mock.send('GET', SAILING);
        expect(schemas.problemWith('readSailing', read)).toBeNull();
        const all = [...kept.values()];
        const fares = all.flatMap(({ fare }) => (fare === null ? [] : [Math.round(fare * 100)]));
        const booked = all
          .filter(({ state }) => state === 'confirmed')
          .reduce((sum, { seats }) => sum + seats, 0);
        expect(read.body).toMatchObject({
          booked,
          left: 10 - booked,
          dearest: fares.length === 0 ? null : Math.max(...fares) / 100,
        });
        const text = JSON.stringify(read.body);
        const tag = read.headers.get('etag') ?? '';
        expect(bodies.get(tag) ?? text).toBe(text);
        bodies.set(tag, text);
      }
    }),
    rounds(30),
  );
});

test.each([
  [1, 3, 2, 0.33],
  [2, 3, 2, 0.67],
  [5, 1000, 2, 0],
  [15, 1000, 2, 0.02],
  [25, 1000, 2, 0.02],
  [-15, 1000, 2, -0.02],
  [1, 8, 2, 0.12],
  [3, 8, 2, 0.38],
  [7, 2, 0, 4],
  [5, 2, 0, 2],
])('%d / %d with %d places is %d, half to even', (over, under, scale, expected) => {
  const value = dividedBy(rational(over), rational(under));
  expect(value === null ? null : rounded(value, scale)).toBe(expected);
});

describe('what is computed from records that its readers may not read', () => {
  const TEXT = `entity Sailing
  seats: integer, required
  taken: integer, computed sum of bookings.seats
  left: integer, computed seats - taken

entity Booking
  seats: integer, required

each Sailing owns many Booking as bookings
`;
  const tellingOf = (bookings: SettingValues, sailings: SettingValues = {}): readonly string[] => {
    const model = modelOf(TEXT);
    const operations = {
      ...Object.fromEntries(
        ['list', 'read'].flatMap((verb) => [
          [operationKey('Sailing>Booking:bookings', verb), bookings],
          [operationKey('Booking/item', verb), bookings],
          [operationKey('Sailing', verb), sailings],
          [operationKey('Sailing/item', verb), sailings],
        ]),
      ),
    };
    const { findings } = derive(model, arranged({ security: ['bearer'] }, {}, operations));
    return findings.filter(({ id }) => id === 'computed.tells').map(({ message }) => message);
  };

  test('is a finding for each such member', () => {
    expect(tellingOf({ access: 'role', role: 'office' })).toEqual([
      'taken of Sailing tells whoever carries out listSailings of records of Booking, which they may not read.',
      'left of Sailing tells whoever carries out listSailings of records of Booking, which they may not read.',
    ]);
    expect(tellingOf({}, { access: 'anonymous' })).toHaveLength(2);
  });

  test('is none where they may', () => {
    expect(tellingOf({})).toEqual([]);
    const office: SettingValues = { access: 'role', role: 'office' };
    expect(tellingOf(office, office)).toEqual([]);
    expect(tellingOf({ access: 'anonymous' }, office)).toEqual([]);
  });
});
