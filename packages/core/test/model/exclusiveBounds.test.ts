import { describe, expect, test } from '@jest/globals';
import { derive } from '@isomeros/core/derivation';
import { compare } from '@isomeros/core/comparison';
import { migrate } from '@isomeros/core/migration';
import { checkScalar, type Model, type Row } from '@isomeros/core/model';
import { parse, print } from '@isomeros/core/notation';
import { publicationSource } from '@isomeros/core/engine';
import { publish } from '@isomeros/core/publication';
import { seed } from '@isomeros/core/seeding';
import { MAIN } from '../support/arrangement.js';
import { modelOf } from '../support/models.js';

const withFare = (type: string): string => `design "Fares"\n\nentity Fare\n  amount: ${type}, required\n`;

const typeIn = (model: Model): Parameters<typeof checkScalar>[0] => {
  const [entity] = model.declarations;
  const type = entity?.kind === 'entity' ? entity.attributes[0]?.type : undefined;
  if (type?.kind !== 'decimal') throw new Error('It is a decimal.');
  return type;
};

describe('a bound that is out itself', () => {
  test.each([
    ['decimal(>0..)', [0.0001, 7], [0, -1], 'a number greater than 0'],
    ['decimal(..<1)', [0.999, -7], [1, 2], 'a number less than 1'],
    ['decimal(>0..<1)', [0.5], [0, 1], 'a number greater than 0 and less than 1'],
    [
      'decimal(0..<1, scale 2)',
      [0, 0.99],
      [1],
      'a number at least 0 and less than 1 with at most 2 decimals',
    ],
  ])('%s is written as it was read, and told in words', (type, inside, outside, words) => {
    const text = withFare(type);
    expect(print(parse(text).model)).toBe(text);
    const read = typeIn(modelOf(text));
    for (const value of inside) expect(checkScalar(read, value)).toBeNull();
    for (const value of outside)
      expect(checkScalar(read, value)).toEqual({ code: 'range', message: `Expected ${words}.` });
  });

  test.each([
    ['decimal(>..)', 'Expected a number behind >: values are greater than it.'],
    ['decimal(0..<)', 'Expected a number behind <: values are less than it.'],
    ['decimal(>1..1)', 'The range >1..1 is empty.'],
    ['decimal(2..<1)', 'The range 2..<1 is empty.'],
  ])('%s is no range', (type, message) => {
    expect(parse(withFare(type)).diagnostics.map((one) => one.message)).toContain(message);
  });

  test('is published in the words of each format', () => {
    const model = modelOf(withFare('decimal(>0..<1)'));
    const source = publicationSource(derive(model, MAIN), model, []);
    const schemasOf = (text: string): readonly unknown[] =>
      Object.values((JSON.parse(text) as { components: { schemas: object } }).components.schemas);
    expect(schemasOf(publish(source, 'openapi-3.1.json', { mock: null }))).toContainEqual({
      type: 'number',
      exclusiveMinimum: 0,
      exclusiveMaximum: 1,
    });
    expect(schemasOf(publish(source, 'openapi-3.0.json', { mock: null }))).toContainEqual({
      type: 'number',
      minimum: 0,
      exclusiveMinimum: true,
      maximum: 1,
      exclusiveMaximum: true,
    });
    const tables = publish(source, 'mariadb.sql', { mock: null });
    expect(tables).toContain('`amount` > 0 AND `amount` < 1');
  });

  test('is kept by seeds', () => {
    for (const type of ['decimal(>0..<0.02)', 'decimal(>0..0.001)', 'decimal(>0..)', 'decimal(..<0)']) {
      const model = modelOf(withFare(type));
      const { rows } = seed(model, { seed: 1, now: 0, counts: { Fare: 50 } });
      const misfits = rows.filter(({ values }) => checkScalar(typeIn(model), values['Fare.amount']) !== null);
      expect([type, misfits]).toEqual([type, []]);
    }
  });

  test('is a change where it was in before, and none the other way round for who sends', () => {
    const changesFrom = (one: string, other: string): readonly string[] =>
      compare(
        { kind: 'draft', contract: derive(modelOf(withFare(one)), MAIN) },
        { kind: 'draft', contract: derive(modelOf(withFare(other)), MAIN) },
      ).changes.map(({ compatibility }) => compatibility);
    expect(changesFrom('decimal(0..)', 'decimal(>0..)')).toContain('breaking');
    expect(changesFrom('decimal(>0..)', 'decimal(>0..)')).toEqual([]);
    expect(changesFrom('decimal(>0..)', 'decimal(0..)').length).toBeGreaterThan(0);
  });

  test('moves records that stand on it, where that is decided', () => {
    const [before, after] = [modelOf(withFare('decimal')), modelOf(withFare('decimal(>0..<1)'))];
    const rows = [0, 1, 0.5].map((amount, at): Row => ({
      rid: at + 1,
      entity: 'Fare',
      values: { 'Fare#id': at + 1, 'Fare.amount': amount },
      revision: 1,
    }));
    const migrated = migrate(
      before,
      after,
      rows,
      { rid: 3, attributes: {} },
      new Map([['misfit Fare.amount Fare', { do: 'convert' }]]),
      { now: 0, uuid: () => '' },
    );
    expect(migrated.open).toEqual([]);
    expect(migrated.rows.map(({ values }) => values['Fare.amount'])).toEqual([0.000001, 0.999999, 0.5]);
  });
});
