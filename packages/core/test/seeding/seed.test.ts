import { describe, expect, test } from '@jest/globals';
import { findViolations } from '@isomeros/core/engine';
import { compilePattern, scalarText } from '@isomeros/core/model';
import { seed } from '@isomeros/core/seeding';
import fc from 'fast-check';
import { NOW } from '../support/mock.js';
import { anyModel, modelOf } from '../support/models.js';
import { kestrelText } from '../support/samples.js';
import { rounds } from '../support/rounds.js';

const kestrel = modelOf(kestrelText);
const options = { seed: 42, counts: {}, now: NOW };

describe('seed', () => {
  test('records obey every rule of any model', () => {
    fc.assert(
      fc.property(anyModel, fc.nat(), (model, number) => {
        const { rows } = seed(model, { ...options, seed: number });
        expect(findViolations(model, rows)).toEqual([]);
      }),
      rounds(80),
    );
  });

  test('the same number gives the same records, another number gives others', () => {
    expect(seed(kestrel, options)).toEqual(seed(kestrel, options));
    expect(seed(kestrel, options).rows).not.toEqual(seed(kestrel, { ...options, seed: 43 }).rows);
  });

  test('every entity of the sample has records, and counts are kept', () => {
    const { rows, shortfalls } = seed(kestrel, { ...options, counts: { Harbour: 30, Notice: 0 } });
    const count = (entity: string): number => rows.filter((row) => row.entity === entity).length;
    expect(shortfalls).toEqual([]);
    expect(count('Harbour')).toBe(30);
    expect(count('Notice')).toBe(0);
    for (const entity of [
      'Route',
      'Sailing',
      'Vessel',
      'Cabin',
      'Certificate',
      'CrewMember',
      'Booking',
      'Passenger',
    ]) {
      expect([entity, count(entity) > 2]).toEqual([entity, true]);
    }
  });

  test('values fit their names: e-mail addresses, codes of a pattern, arrivals after departures', () => {
    const { rows } = seed(kestrel, options);
    const values = (id: string): unknown[] => rows.flatMap((row) => row.values[id] ?? []);
    for (const code of values('Harbour.code')) expect(code).toMatch(/^[A-Z]{3,5}$/);
    for (const pennant of values('Vessel.pennant'))
      expect(compilePattern('KS-[0-9]{2,3}').matches(String(pennant))).toBe(true);
    for (const email of values('CrewMember.email')) expect(email).toMatch(/^[a-z.0-9]+@example\.net$/);
    for (const row of rows.filter(({ entity }) => entity === 'Sailing')) {
      expect(Date.parse(scalarText(row.values['Sailing.arrivesAt']))).toBeGreaterThan(
        Date.parse(scalarText(row.values['Sailing.departsAt'])),
      );
    }
    for (const name of values('CrewMember.name')) expect(name).toMatch(/^\S+ \S+$/);
  });

  test('what cannot be seeded is told, not left out in silence', () => {
    const { shortfalls } = seed(modelOf('entity Flag\n  on: boolean, required, unique'), {
      ...options,
      counts: { Flag: 5 },
    });
    expect(shortfalls).toEqual([
      { entity: 'Flag', wanted: 5, made: 2, why: expect.stringContaining('unique') as unknown },
    ]);
    const circle = seed(
      modelOf(
        'entity Hen\nentity Egg\neach Hen refers to one Egg as from\neach Egg refers to one Hen as layer',
      ),
      options,
    );
    expect(circle.shortfalls.map(({ entity, made }) => `${entity} ${made}`)).toEqual(['Hen 0', 'Egg 0']);
  });
});
