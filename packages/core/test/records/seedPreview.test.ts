import { describe, expect, test } from '@jest/globals';
import { previewSeed, textOfCell } from '@isomeros/core/records';
import { modelOf } from '../support/models.js';

const MODEL = modelOf(`entity Vessel
  name: text(1..60)

entity Certificate
  number: text(4..20), required

each Vessel owns optional Certificate as certificate, back as vessel
each Vessel pairs with many Vessel as tenders, back as tenderOf
`);

const NOW = Date.parse('2026-06-14T09:12:00Z');

describe('what a plan would give', () => {
  test('is counted by entity and pairing', () => {
    const { types, overflows } = previewSeed(MODEL, { seed: 42, now: NOW, counts: { Vessel: 9 } });
    expect(types.map(({ name }) => name)).toEqual(['Vessel', 'Certificate', 'Vessel tenders']);
    expect(types[0]?.records).toBe(9);
    expect(overflows).toBe(false);
  });

  test('is shown by its first records, and what they lead to', () => {
    const options = { seed: 42, now: NOW, counts: { Vessel: 9 } };
    const [vessels, certificates] = previewSeed(MODEL, options).types;
    expect(vessels?.columns).toEqual(['id', 'name']);
    expect(vessels?.first.map(({ cells }) => cells.map(textOfCell)[0])).toEqual(['1', '2', '3', '4', '5']);
    expect(certificates?.columns).toEqual(['number', 'vessel']);
    expect(certificates?.first[0]?.cells[1]).toMatchObject({
      kind: 'record',
      to: { type: 'Vessel' },
    });
    expect(previewSeed(MODEL, options)).toEqual(previewSeed(MODEL, options));
  });

  test('tells where it cannot be met, and that it is more than may be', () => {
    const { types, shortfalls } = previewSeed(MODEL, {
      seed: 42,
      now: NOW,
      counts: { Vessel: 9, Certificate: 12 },
    });
    expect(types[1]).toMatchObject({ name: 'Certificate', records: 9 });
    expect(shortfalls).toEqual([
      {
        entity: 'Certificate',
        wanted: 12,
        made: 9,
        why: 'A Vessel owns at most one, and there are 9.',
      },
    ]);
    const some = previewSeed(MODEL, { seed: 42, now: NOW, counts: { Vessel: 9, Certificate: 4 } });
    expect([some.types[1]?.records, some.shortfalls]).toEqual([4, []]);
    expect(previewSeed(MODEL, { seed: 1, now: NOW, counts: { Vessel: 9 }, most: 5 }).overflows).toBe(true);
  });
});
