import { describe, expect, test } from '@jest/globals';
import { operationKey, type SettingsById, type SettingValues } from '@isomeros/core/arrangement';
import { judgeResponse } from '@isomeros/core/conformance';
import { derive } from '@isomeros/core/derivation';
import { exampleRequest } from '@isomeros/core/engine';
import { arrangedWith, type OperationLine } from '../support/lines.js';
import { TestMock } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const TEXT = `entity Sailing
  number: integer, key
  seats: integer

entity Booking
  state: choice(open, confirmed), default open
  seats: integer, required
  fare: decimal(scale 2)
  madeAt: instant
  pin: text, write-only

entity Passenger
  age: integer, required

each Sailing owns many Booking as bookings, back as sailing
each Booking owns many Passenger as passengers
`;

const LINES: readonly OperationLine[] = [
  ['Sailing', 'booked', 'sum of bookings.seats where state = confirmed'],
  ['Sailing', 'passengers', 'count of bookings.passengers where age >= input from default 18'],
  ['Sailing', 'meanFare', 'average of bookings.fare scale 1'],
  ['Sailing', 'lastBooked', 'max of bookings.madeAt'],
  ['Sailing', 'capacity', 'sum of seats'],
  ['Booking', 'open', 'count where state = open and seats >= input least'],
  ['Booking', 'ofSailing', 'sum of sailing.seats'],
];

const MODEL = modelOf(TEXT);
const BOOKINGS = [
  { seats: 2, fare: 10.25, madeAt: '2026-06-01T00:00:00Z', ages: [7, 40] },
  { seats: 3, fare: 10.1, madeAt: '2026-06-03T00:00:00Z', ages: [18], state: 'confirmed' },
  { seats: 5, ages: [], state: 'confirmed' },
];

function mockOf(): TestMock {
  const mock = new TestMock(MODEL, { Sailing: 0, Booking: 0, Passenger: 0 }, arrangedWith(MODEL, LINES));
  for (const number of [1, 2])
    expect(mock.send('POST', '/api/v1/sailings', { number, seats: number * 10 }).status).toBe(201);
  for (const { ages, ...booking } of BOOKINGS) {
    const made = mock.send('POST', '/api/v1/sailings/1/bookings', booking);
    const { id } = made.body as { id: number };
    for (const age of ages) mock.send('POST', `/api/v1/sailings/1/bookings/${id}/passengers`, { age });
  }
  return mock;
}

const told = (mock: TestMock, path: string): unknown => mock.send('GET', `/api/v1/${path}`).body;

describe('an aggregate as a read', () => {
  test.each([
    ['sailings/1/booked', { booked: 8 }],
    ['sailings/2/booked', { booked: 0 }],
    ['sailings/1/passengers', { passengers: 2 }],
    ['sailings/1/passengers?from=1', { passengers: 3 }],
    ['sailings/1/mean-fare', { meanFare: 10.2 }],
    ['sailings/2/mean-fare', { meanFare: null }],
    ['sailings/1/last-booked', { lastBooked: '2026-06-03T00:00:00Z' }],
    ['sailings/2/last-booked', { lastBooked: null }],
    ['sailings/capacity', { capacity: 30 }],
    ['sailings/1/bookings/open?least=1', { open: 1 }],
    ['sailings/1/bookings/open?least=3', { open: 0 }],
    ['sailings/2/bookings/open?least=1', { open: 0 }],
    ['sailings/1/bookings/1/of-sailing', { ofSailing: 10 }],
  ])('%s tells %j', (path, expected) => {
    expect(told(mockOf(), path)).toEqual(expected);
  });

  test.each([
    ['sailings/9/booked', 404],
    ['sailings/9/bookings/open?least=1', 404],
    ['sailings/1/bookings/open', 400],
    ['sailings/1/bookings/open?least=x', 400],
    ['sailings/1/booked?page=2', 400],
  ])('%s is answered %i', (path, status) => {
    expect(mockOf().send('GET', `/api/v1/${path}`).status).toBe(status);
  });

  test('its tag stays while it comes to the same', () => {
    const mock = mockOf();
    const path = '/api/v1/sailings/1/booked';
    const tag = mock.send('GET', path).headers.get('etag') ?? '';
    mock.send('POST', '/api/v1/sailings/1/bookings', { seats: 4 });
    expect(mock.send('GET', path, undefined, { 'if-none-match': tag }).status).toBe(304);
    mock.send('POST', '/api/v1/sailings/1/bookings', { seats: 4, state: 'confirmed' });
    expect(mock.send('GET', path, undefined, { 'if-none-match': tag })).toMatchObject({
      status: 200,
      body: { booked: 12 },
    });
    expect(mock.send('POST', path).status).toBe(405);
    expect(mock.send('GET', path, undefined, { accept: 'application/hal+json' }).status).toBe(406);
  });

  test('records and lists link to it, and its answer is as published', () => {
    const mock = mockOf();
    expect(told(mock, 'sailings/1')).toMatchObject({
      links: { booked: { href: '/api/v1/sailings/1/booked' } },
    });
    expect(told(mock, 'sailings')).toMatchObject({
      links: { capacity: { href: '/api/v1/sailings/capacity' } },
    });
    const { contract } = mock.service;
    const all = contract.operations.filter(({ custom }) => custom?.kind === 'aggregate');
    expect(all.map(({ id }) => id)).toEqual([
      'readSailingCapacity',
      'readSailingBooked',
      'readSailingPassengers',
      'readSailingMeanFare',
      'readSailingLastBooked',
      'readBookingOpen',
      'readBookingOfSailing',
    ]);
    for (const operation of all) {
      const request = exampleRequest(mock.service, mock.dataset, operation, mock.now);
      if (request === null) throw new Error(operation.id);
      const { status, headers, handled } = mock.exchange(request);
      const lower = new Map([...headers].map(([name, value]) => [name.toLowerCase(), value]));
      const received = { status, headers: lower, body: handled.response.body };
      expect([operation.id, status, judgeResponse(contract, operation.id, received)]).toEqual([
        operation.id,
        200,
        [],
      ]);
    }
  });

  test.each<[OperationLine, string]>([
    [['Sailing', 'odd', 'sum of bookings.state'], 'state is choice, of which there is no sum.'],
    [['Sailing', 'odd', 'max of bookings.pin'], 'pin is never returned, so nothing is looked for by it.'],
    [
      ['Sailing', 'odd', 'average of bookings.madeAt scale 2'],
      'madeAt is instant, of which there is no average.',
    ],
    [
      ['Sailing', 'odd', 'count of bookings where pin = x'],
      'pin is never returned, so nothing is looked for by it.',
    ],
  ])('%j is left out: %s', (line, why) => {
    const { findings } = derive(MODEL, arrangedWith(MODEL, [line]));
    expect(findings.find(({ id }) => id === 'custom.unfit')?.message).toBe(`odd is left out. ${why}`);
  });

  test('that tells of records which its readers may not read is a finding', () => {
    const settings: SettingValues = { security: ['bearer'], access: 'anonymous' };
    const { resources, operations } = derive(MODEL, arrangedWith(MODEL, LINES, settings));
    const ofBookings = new Set(
      resources.flatMap(({ id, entity, custom }) => (entity === 'Booking' && custom === null ? [id] : [])),
    );
    const own: SettingsById = Object.fromEntries(
      operations
        .filter(({ resource }) => ofBookings.has(resource))
        .map(({ resource, verb }) => [operationKey(resource, verb), { access: 'authenticated' as const }]),
    );
    const { findings } = derive(MODEL, arrangedWith(MODEL, LINES, settings, own));
    expect(findings.filter(({ id }) => id === 'computed.tells').map(({ about }) => about)).toContain(
      'booked',
    );
  });
});
