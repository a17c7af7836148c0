import { describe, expect, test } from '@jest/globals';
import { derive } from '@isomeros/core/derivation';
import { publicationSource } from '@isomeros/core/engine';
import { readSql } from '@isomeros/core/intake';
import {
  onRemoveOf,
  ownerRoleOf,
  roleOf,
  type AttributeType,
  type Declaration,
  type Model,
} from '@isomeros/core/model';
import { PUBLICATION_FORMATS, publish } from '@isomeros/core/publication';
import fc from 'fast-check';
import { MAIN } from '../support/arrangement.js';
import { anyModel } from '../support/models.js';
import { rounds } from '../support/rounds.js';

const LISTS = 'What lists of related records are called, and whether there are any, is not here.';

/** No text is shorter than none. */
const withoutLeastOfNone = (type: AttributeType): AttributeType =>
  type.kind === 'text' && type.min === 0 ? { ...type, min: null } : type;

/** What a statement says, by what it is about, but for what lists of related records are called. */
function factsOf(one: Declaration): readonly (readonly [string, unknown])[] {
  switch (one.kind) {
    case 'value':
      return [];
    case 'entity':
      return [
        // A comment without words is none.
        [one.name, one.description === '' ? null : one.description],
        ...one.attributes.map((attribute) => {
          const { name, type, required, unique, key, generated, touched, defaultValue, computed } = attribute;
          const isRequired = required || computed !== null;
          return [
            `${one.name}.${name}`,
            {
              type: withoutLeastOfNone(type),
              isRequired,
              unique,
              key,
              generated,
              touched,
              defaultValue,
              computed,
            },
          ] as const;
        }),
        ...one.uniques.map(({ names }) => [`${one.name}(${[...names].sort().join()})`, true] as const),
      ];
    case 'owns':
      return [
        [`${one.to}.${ownerRoleOf(one)}`, { owner: one.from, many: one.cardinality === 'many' }],
        [`Each ${one.from} has its ${one.to}`, one.cardinality === 'one'],
      ];
    case 'refers':
      return [
        [
          `${one.from}.${roleOf(one)}`,
          { to: one.to, cardinality: one.cardinality, unique: one.unique, onRemove: onRemoveOf(one) },
        ],
      ];
    case 'pairs':
      return [
        [
          `${one.from}.${roleOf(one)}`,
          { to: one.to, carrying: one.carrying, isGuarded: onRemoveOf(one) === 'restrict' },
        ],
      ];
  }
}

const factsIn = ({ declarations }: Model): Record<string, unknown> =>
  Object.fromEntries(declarations.flatMap(factsOf));

/** In whatever order: the column of an owner stands first, and what owns is not always what did. */
const linesOf = (tables: string): readonly string[] =>
  tables
    .split('\n')
    .map((line) => line.replace(/,$/, ''))
    .sort();

describe.each(['mariadb.sql', 'postgresql.sql'] as const)('%s of any model', (dialect) => {
  const written = (model: Model): string =>
    publish(publicationSource(derive(model, MAIN), model, []), dialect, { mock: null });

  test('is read as what is written so again', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const tables = written(model);
        const read = readSql(tables, model.name);
        expect([read.problem, read.leftOut]).toEqual([null, []]);
        expect(linesOf(written(read.model))).toEqual(linesOf(tables));
      }),
      rounds(40),
    );
  });

  test('keeps all but what is listed', () => {
    fc.assert(
      fc.property(anyModel, (model) => {
        const unsaid = PUBLICATION_FORMATS[dialect].cannotSay(
          publicationSource(derive(model, MAIN), model, []),
        );
        const isSaid = ([about]: readonly [string, unknown]): boolean =>
          !unsaid.some((line) => line.startsWith(`${about} `));
        const facts = Object.fromEntries(Object.entries(factsIn(model)).filter(isSaid));
        expect(factsIn(readSql(written(model), model.name).model)).toMatchObject(facts);
        const hasLists = model.declarations.some(({ kind }) => kind !== 'entity' && kind !== 'value');
        expect(unsaid.includes(LISTS)).toBe(hasLists);
      }),
      rounds(40),
    );
  });
});
