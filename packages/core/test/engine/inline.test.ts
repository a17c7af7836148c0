import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, plainArrangement, type Placements } from '@isomeros/core/arrangement';
import { findViolations } from '@isomeros/core/engine';
import { TestMock, type Answer } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Booking
  name: text(1..20), required

entity Passenger
  seat: integer(1..99), required, unique
  name: text(1..20), required
  pin: text(1..8), write-only
  joined: instant, generated

entity Bag
  weight: integer(1..40), required

entity Ticket
  code: text(1..9), required

entity Lounge
  name: text(1..20), required

each Booking owns many Passenger as passengers
each Passenger owns many Bag as bags
each Passenger refers to optional Passenger as guardian, on remove restrict
each Booking owns optional Ticket as ticket
each Booking refers to optional Lounge as lounge, on remove detach
`;

const INLINE: Placements = {
  'Booking>Passenger:passengers': 'inline',
  'Passenger>Bag:bags': 'inline',
  'Booking>Ticket:ticket': 'inline',
  'Booking>Lounge:lounge': 'inline',
};

const BOOKINGS = '/api/v1/bookings';
const ONE = `${BOOKINGS}/1`;

function mockWith(body: object): { readonly mock: TestMock; readonly made: Answer } {
  const mock = new TestMock(
    modelOf(TEXT),
    { Booking: 0, Passenger: 0, Bag: 0, Ticket: 0, Lounge: 1 },
    arrangementOf('main', {
      ...NO_CHOICES,
      arrangements: [{ ...plainArrangement('main'), placements: INLINE }],
    }),
  );
  return { mock, made: mock.send('POST', BOOKINGS, body) };
}

const TWO = {
  name: 'Ash',
  passengers: [
    { seat: 1, name: 'One', pin: 'secret', bags: [{ weight: 5 }, { weight: 6 }] },
    { seat: 2, name: 'Two' },
  ],
  ticket: { code: 'T' },
  loungeId: 1,
};

const passengersOf = (answer: Answer): Record<string, unknown>[] =>
  (answer.body as { passengers: Record<string, unknown>[] }).passengers;

const hasNoViolations = (mock: TestMock): void => {
  expect(findViolations(mock.service.model, mock.rows)).toEqual([]);
};

describe('what stands inside its owner', () => {
  test('is made with it, and shown in it', () => {
    const { mock, made } = mockWith(TWO);
    expect(made.status).toBe(201);
    const read = mock.send('GET', ONE);
    expect(read.body).toEqual(made.body);
    expect(read.body).toMatchObject({
      passengers: [
        {
          id: 1,
          seat: 1,
          name: 'One',
          bags: [
            { id: 1, weight: 5 },
            { id: 2, weight: 6 },
          ],
        },
        { id: 2, seat: 2, name: 'Two', bags: [] },
      ],
      ticket: { code: 'T' },
      lounge: { id: 1, links: { self: { href: '/api/v1/lounges/1' } } },
    });
    expect(Object.keys(passengersOf(read)[0] ?? {})).toEqual([
      'id',
      'seat',
      'name',
      'joined',
      'guardianId',
      'bags',
    ]);
    hasNoViolations(mock);
  });

  test('has no path', () => {
    const { mock } = mockWith(TWO);
    expect(mock.send('GET', `${ONE}/passengers`).status).toBe(404);
    expect(mock.send('GET', '/api/v1/passengers').status).toBe(404);
  });

  test('is replaced as a whole: known by id, new without one, gone where it is left out', () => {
    const { mock } = mockWith(TWO);
    const answer = mock.send('PUT', ONE, {
      name: 'Ash',
      passengers: [
        { seat: 3, name: 'Three' },
        { id: 1, seat: 1, name: 'Uno', bags: [{ id: 2, weight: 9 }] },
      ],
    });
    expect(answer.body).toMatchObject({
      passengers: [
        { id: 1, name: 'Uno', bags: [{ id: 2, weight: 9 }] },
        { id: 3, name: 'Three', bags: [] },
      ],
      ticket: null,
      loungeId: null,
    });
    hasNoViolations(mock);
  });

  test('keeps what nobody is shown, and what the server made', () => {
    const { mock, made } = mockWith(TWO);
    const pin = mock.rows.find(({ values }) => Object.values(values).includes('secret'));
    expect(mock.send('PUT', ONE, made.body).status).toBe(200);
    const now = mock.rows.find(({ rid }) => rid === pin?.rid);
    expect(now?.values).toEqual(pin?.values);
  });

  test('changes by a merge patch: an array is the whole of it, a slot is merged', () => {
    const { mock } = mockWith(TWO);
    expect(passengersOf(mock.send('PATCH', ONE, { name: 'Elm' }))).toHaveLength(2);
    const patched = mock.send('PATCH', ONE, { passengers: [{ id: 2, seat: 2, name: 'Dos', bags: [] }] });
    expect(passengersOf(patched)).toMatchObject([{ id: 2, name: 'Dos' }]);
    expect(mock.send('PATCH', ONE, { ticket: { code: 'U' } }).body).toMatchObject({ ticket: { code: 'U' } });
    expect(mock.send('PATCH', ONE, { ticket: null }).body).toMatchObject({ ticket: null });
    expect(mock.send('PATCH', ONE, { ticket: { code: 'V' } }).body).toMatchObject({ ticket: { code: 'V' } });
    hasNoViolations(mock);
  });

  test('changes by a JSON Patch', () => {
    const { mock } = mockWith(TWO);
    const answer = mock.send(
      'PATCH',
      ONE,
      [
        { op: 'replace', path: '/passengers/0/name', value: 'Uno' },
        { op: 'remove', path: '/passengers/1' },
        { op: 'add', path: '/passengers/0/bags/-', value: { weight: 7 } },
      ],
      { 'content-type': 'application/json-patch+json' },
    );
    expect(passengersOf(answer)).toMatchObject([{ id: 1, name: 'Uno', bags: [{}, {}, { weight: 7 }] }]);
  });

  test('may swap what is unique among them', () => {
    const { mock } = mockWith(TWO);
    const answer = mock.send('PATCH', ONE, {
      passengers: [
        { id: 1, seat: 2, name: 'One', bags: [] },
        { id: 2, seat: 1, name: 'Two', bags: [] },
      ],
    });
    expect(passengersOf(answer)).toMatchObject([{ seat: 2 }, { seat: 1 }]);
  });

  test('tells its owner by its tag', () => {
    const { mock } = mockWith(TWO);
    const before = mock.send('GET', ONE).headers.get('etag');
    mock.send('PATCH', ONE, { passengers: [{ id: 1, seat: 1, name: 'New', bags: [] }] });
    expect(mock.send('GET', ONE).headers.get('etag')).not.toBe(before);
    expect(mock.send('PATCH', ONE, { name: 'x' }, { 'if-match': before ?? '' }).status).toBe(412);
    const now = mock.send('GET', ONE).headers.get('etag') ?? '';
    expect(mock.send('PATCH', ONE, { name: 'x' }, { 'if-match': now }).status).toBe(200);
  });

  test('goes with its owner', () => {
    const { mock } = mockWith(TWO);
    expect(mock.send('DELETE', ONE).status).toBe(204);
    expect(mock.rows).toHaveLength(1);
  });

  test.each<readonly [name: string, passengers: unknown, status: number, pointer: string, code: string]>([
    [
      'a member that does not fit',
      [{ id: 1, seat: 100, name: 'x', bags: [] }],
      400,
      '/passengers/0/seat',
      'range',
    ],
    ['a member that is missing', [{ seat: 5 }], 400, '/passengers/0/name', 'required'],
    [
      'a member deep inside',
      [{ id: 1, seat: 1, name: 'x', bags: [{}] }],
      400,
      '/passengers/0/bags/0/weight',
      'required',
    ],
    [
      'an id of somebody else',
      [{ id: 9, seat: 1, name: 'x', bags: [] }],
      400,
      '/passengers/0/id',
      'reference',
    ],
    [
      'one twice',
      [1, 1].map((id) => ({ id, seat: 1, name: 'x', bags: [] })),
      400,
      '/passengers/1',
      'duplicate',
    ],
    ['no array', { id: 1 }, 400, '/passengers', 'type'],
    ['nothing', null, 400, '/passengers', 'type'],
    [
      'what the server made, changed',
      [{ id: 1, seat: 1, name: 'x', bags: [], joined: '2020-01-01T00:00:00Z' }],
      400,
      '/passengers/0/joined',
      'fixed',
    ],
    [
      'what is taken',
      [
        { id: 1, seat: 1, name: 'x', bags: [] },
        { seat: 1, name: 'y' },
      ],
      409,
      '/passengers/0/seat',
      'unique',
    ],
  ])('refuses %s, and changes nothing', (_name, passengers, status, pointer, code) => {
    const { mock } = mockWith(TWO);
    const answer = mock.send('PATCH', ONE, { passengers });
    expect([answer.status, answer.body]).toMatchObject([
      status,
      { errors: expect.arrayContaining([expect.objectContaining({ pointer, code })]) },
    ]);
    expect(answer.handled.changes).toEqual([]);
  });

  test('does not go while it is needed', () => {
    const { mock } = mockWith({ ...TWO, passengers: [{ seat: 1, name: 'One' }] });
    const both = [
      { id: 1, seat: 1, name: 'One', bags: [] },
      { seat: 2, name: 'Two', guardianId: 1 },
    ];
    expect(mock.send('PATCH', ONE, { passengers: both }).status).toBe(200);
    const without = mock.send('PATCH', ONE, {
      passengers: [{ id: 2, seat: 2, name: 'Two', guardianId: 1, bags: [] }],
    });
    expect([without.status, without.body]).toMatchObject([409, { errors: [{ code: 'restricted' }] }]);
    const letGo = mock.send('PATCH', ONE, { passengers: [{ id: 2, seat: 2, name: 'Two', bags: [] }] });
    expect(letGo.status).toBe(200);
    hasNoViolations(mock);
  });

  test('is embedded in HAL where it is a reference, and a member where it is owned', () => {
    const { mock } = mockWith(TWO);
    const body = mock.send('GET', ONE, undefined, { accept: 'application/hal+json' }).body;
    expect(body).toMatchObject({
      passengers: [{ id: 1 }, { id: 2 }],
      _embedded: { 'rel:lounge': { id: 1 } },
    });
  });

  test('takes no new ones while something they need is not accepted', () => {
    const exposures = { Passenger: { 'Passenger.name': { create: 'no' } } } as const;
    const arrangement = { ...plainArrangement('main'), placements: INLINE, exposures };
    const mock = new TestMock(
      modelOf(TEXT),
      { Booking: 1, Passenger: 1 },
      arrangementOf('main', { ...NO_CHOICES, arrangements: [arrangement] }),
    );
    expect(mock.send('POST', BOOKINGS, { name: 'Elm', passengers: [{ seat: 9 }] }).status).toBe(400);
    const [known] = passengersOf(mock.send('GET', ONE));
    expect(mock.send('PATCH', ONE, { passengers: [known] }).status).toBe(200);
    const answer = mock.send('PATCH', ONE, { passengers: [known, { seat: 98 }] });
    expect([answer.status, answer.body]).toMatchObject([
      400,
      { errors: [{ pointer: '/passengers/1', code: 'closed' }] },
    ]);
  });
});
