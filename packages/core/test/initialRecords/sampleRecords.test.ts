import { describe, expect, test } from '@jest/globals';
import { left, read, records } from '../support/intakeRecords.js';

describe('sample records', () => {
  test.each([
    [
      'a list',
      '[{ "id": 4, "name": "A" }, { "id": 2, "name": "B" }]',
      {
        Item: [
          { id: 4, name: 'A' },
          { id: 2, name: 'B' },
        ],
      },
    ],
    [
      'comma-separated values',
      'code;size;open\nA;12;true\nB;;false',
      {
        Item: [
          { code: 'A', size: 12, open: true },
          { code: 'B', open: false },
        ],
      },
    ],
    [
      'records by their codes',
      '{ "KSH": { "size": 3 }, "WKH": { "size": 4 } }',
      {
        Item: [
          { code: 'KSH', size: 3 },
          { code: 'WKH', size: 4 },
        ],
      },
    ],
    [
      'records inside others: lists are owned, what comes again is one, the rest are values',
      `{ "sailings": [
        { "id": 1, "route": { "id": 7, "fare": 2.5 }, "at": { "hour": 9 }, "bookings": [{ "seats": 2 }, { "seats": 1 }] },
        { "id": 2, "route": { "id": 7, "fare": 2.5 }, "at": { "hour": 10 }, "bookings": [{ "seats": 4 }] }] }`,
      {
        Sailing: [
          { id: 1, at: { hour: 9 }, route: 7 },
          { id: 2, at: { hour: 10 }, route: 7 },
        ],
        Route: [{ id: 7, fare: 2.5 }],
        Booking: [
          { id: 1, seats: 2, sailing: 1 },
          { id: 2, seats: 1, sailing: 1 },
          { id: 3, seats: 4, sailing: 2 },
        ],
      },
    ],
    [
      'columns that refer',
      '{ "routes": [{ "id": 7 }], "sailings": [{ "id": 1, "routeId": 7 }, { "id": 2, "routeId": null }] }',
      { Route: [{ id: 7 }], Sailing: [{ id: 1, route: 7 }, { id: 2 }] },
    ],
    [
      'names of every object',
      '[{ "id": 1, "__proto__": "a", "constructor": 2 }]',
      { Item: [{ id: 1, proto: 'a', constructor: 2 }] },
    ],
  ])('%s', (_, source, expected) => {
    const intake = read('records', source);
    expect(left(intake)).toEqual([]);
    expect(records(intake)).toEqual(expected);
  });
});
