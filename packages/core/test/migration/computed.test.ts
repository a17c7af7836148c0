import { describe, expect, test } from '@jest/globals';
import { findViolations } from '@isomeros/core/engine';
import { migrate, type Migration } from '@isomeros/core/migration';
import type { Model, Row } from '@isomeros/core/model';
import { NOW } from '../support/mock.js';
import { modelOf } from '../support/models.js';

const COMPUTED = `entity Sailing
  seats: integer, required
  held: integer, computed sum of bookings.seats
  left: integer, computed seats - held

entity Booking
  seats: integer, required

each Sailing owns many Booking as bookings
`;

const [BEFORE, ROWS] = [
  modelOf(COMPUTED),
  [
    { rid: 1, entity: 'Sailing', values: { 'Sailing#id': 1, 'Sailing.seats': 9 }, revision: 1 },
    { rid: 2, entity: 'Sailing', values: { 'Sailing#id': 2, 'Sailing.seats': 5 }, revision: 1 },
    {
      rid: 3,
      entity: 'Booking',
      values: { 'Booking#id': 1, 'Booking.seats': 4, 'Sailing>Booking:bookings': 1 },
      revision: 1,
    },
  ] as readonly Row[],
];

const migrated = (before: Model, after: Model, rows: readonly Row[]): Migration =>
  migrate(before, after, rows, { rid: 9, attributes: {} }, new Map(), { now: NOW, uuid: () => 'none' });

describe('an attribute that was computed', () => {
  const after = modelOf(COMPUTED.replace(', computed seats - held', ', required'));

  test('keeps its values where it is stored from then on', () => {
    const { open, rows } = migrated(BEFORE, after, ROWS);
    expect(open).toEqual([]);
    expect(rows.map(({ values }) => values['Sailing.left'])).toEqual([5, 5, undefined]);
    expect(findViolations(after, rows)).toEqual([]);
  });

  test('waits where its values do not fit', () => {
    const narrow = modelOf(COMPUTED.replace('integer, computed seats - held', 'integer(6..9)'));
    expect(migrated(BEFORE, narrow, ROWS).open).toMatchObject([
      { message: 'Sailing.left has values that do not fit an integer from 6 to 9.', records: 2 },
    ]);
  });
});

test('an attribute that was stored waits before it is computed, since its values go', () => {
  const before = modelOf(COMPUTED.replace(', computed seats - held', ''));
  const rows = ROWS.map((row) =>
    row.entity === 'Sailing' ? { ...row, values: { ...row.values, 'Sailing.left': 3 } } : row,
  );
  expect(migrated(before, BEFORE, rows).open).toMatchObject([
    { message: 'Sailing.left goes, and 2 records hold it.', resolutions: [{ do: 'drop' }] },
  ]);
});
