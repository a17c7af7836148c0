import { describe, expect, test } from '@jest/globals';
import { runToEnd } from '@isomeros/core/model';
import { seedPreview, textOfCell, type SeedPreview } from '@isomeros/core/records';
import { seed } from '@isomeros/core/seeding';
import { modelOf } from '../support/models.js';

const MODEL = modelOf(`entity Vessel
  name: text(1..60)

entity Certificate
  number: text(4..20), required

each Vessel owns optional Certificate as certificate, back as vessel
each Vessel pairs with many Vessel as tenders, back as tenderOf
`);

const NOW = Date.parse('2026-06-14T09:12:00Z');

const preview = (counts: Readonly<Record<string, number>>): SeedPreview =>
  runToEnd(seedPreview(MODEL, seed(MODEL, { seed: 42, now: NOW, counts })));

describe('what a plan would give', () => {
  test('is counted by entity and pairing', () => {
    const { types } = preview({ Vessel: 9 });
    expect(types.map(({ name }) => name)).toEqual(['Vessel', 'Certificate', 'Vessel tenders']);
    expect(types[0]?.records).toBe(9);
  });

  test('is shown by its first records, and what they lead to', () => {
    const [vessels, certificates] = preview({ Vessel: 9 }).types;
    expect(vessels?.columns).toEqual(['id', 'name']);
    expect(vessels?.first.map(({ cells }) => cells.map(textOfCell)[0])).toEqual(['1', '2', '3', '4', '5']);
    expect(certificates?.columns).toEqual(['number', 'vessel']);
    expect(certificates?.first[0]?.cells[1]).toMatchObject({
      kind: 'record',
      to: { type: 'Vessel' },
    });
  });

  test('tells where it cannot be met', () => {
    const { types, shortfalls } = preview({ Vessel: 9, Certificate: 12 });
    expect(types[1]).toMatchObject({ name: 'Certificate', records: 9 });
    expect(shortfalls).toEqual([
      {
        entity: 'Certificate',
        wanted: 12,
        made: 9,
        why: 'A Vessel owns at most one, and there are 9.',
      },
    ]);
    const some = preview({ Vessel: 9, Certificate: 4 });
    expect([some.types[1]?.records, some.shortfalls]).toEqual([4, []]);
  });
});
