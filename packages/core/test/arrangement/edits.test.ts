import { describe, expect, test } from '@jest/globals';
import {
  PART_NAMES,
  plainArrangement,
  withEdit,
  withoutCustomOperation,
  withSetting,
  type Choices,
  type CustomOperation,
  type PartEdit,
  type PartName,
} from '@isomeros/core/arrangement';
import { EXAMPLE } from '../support/examples.js';

describe('a setting chosen at a level', () => {
  const other = { ...plainArrangement('other'), settings: { depth: 4 } };
  const main = plainArrangement('main');
  const choices = { settings: { depth: 3 }, arrangements: [other, main], answered: ['a'] };
  const at = { level: 'arrangement' } as const;

  test('stands there and nowhere else, and goes without a trace', () => {
    const own = withSetting(choices, 'main', at, { name: 'depth', value: 1 });
    expect(own).toEqual({ ...choices, arrangements: [other, { ...main, settings: { depth: 1 } }] });
    expect(withSetting(own, 'main', at, { name: 'depth', value: null })).toEqual(choices);
    expect(withSetting(choices, 'main', { level: 'design' }, { name: 'depth', value: 5 }).settings).toEqual({
      depth: 5,
    });
    expect(
      withSetting(choices, 'main', { level: 'design' }, { name: 'depth', value: null }).settings,
    ).toEqual({});
  });

  test('of one resource or operation leaves no entry behind when it goes', () => {
    const list = { level: 'operation', id: 'Route:list' } as const;
    const own = withSetting(choices, 'main', list, { name: 'unknownParameters', value: 'ignored' });
    expect(own.arrangements[1]?.operations).toEqual({ 'Route:list': { unknownParameters: 'ignored' } });
    expect(withSetting(own, 'main', list, { name: 'unknownParameters', value: null })).toEqual(choices);
    const route = { level: 'resource', id: 'Route' } as const;
    expect(
      withSetting(choices, 'main', route, { name: 'pageSize', value: 5 }).arrangements[1]?.resources,
    ).toEqual({
      Route: { pageSize: 5 },
    });
  });

  test('a place that something has anyhow is not kept', () => {
    const placed = withEdit(choices, 'main', 'placements', {
      kind: 'owned',
      subject: 'A>B:bs',
      place: 'flat',
    });
    expect(placed.arrangements[1]?.placements).toEqual({ 'A>B:bs': 'flat' });
    expect(
      withEdit(placed, 'main', 'placements', { kind: 'owned', subject: 'A>B:bs', place: 'nested' }),
    ).toEqual(choices);
  });
});

describe('a part of an arrangement', () => {
  const nothing: Choices = { settings: {}, arrangements: [plainArrangement('main')], answered: [] };
  const query: CustomOperation = {
    id: 'c1',
    entity: 'e1',
    name: 'recent',
    effect: { kind: 'query', filters: [], order: [], limit: 10 },
  };
  const EDITS: { readonly [Name in PartName]: readonly [decided: PartEdit<Name>, back: PartEdit<Name>] } = {
    settings: [
      { name: 'depth', value: 2 },
      { name: 'depth', value: null },
    ],
    resources: [
      { id: 'Route', name: 'pageSize', value: 5 },
      { id: 'Route', name: 'pageSize', value: null },
    ],
    operations: [
      { id: 'Route:list', name: 'unknownParameters', value: 'ignored' },
      { id: 'Route:list', name: 'unknownParameters', value: null },
    ],
    placements: [
      { kind: 'owned', subject: 'A>B:bs', place: 'flat' },
      { kind: 'owned', subject: 'A>B:bs', place: 'nested' },
    ],
    words: [
      { subject: 'A>B:bs', word: 'bees' },
      { subject: 'A>B:bs', word: null },
    ],
    exposures: [
      { entity: 'e1', member: 'm1', aspect: 'sort', value: 'no' },
      { entity: 'e1', member: 'm1', aspect: 'sort', value: null },
    ],
    links: [
      { resource: 'Route', link: 'up', choice: { leftOut: true } },
      { resource: 'Route', link: 'up', choice: null },
    ],
    ownLinks: [
      {
        id: 'o1',
        link: {
          id: 'o1',
          resource: 'Route',
          relation: 'manual',
          target: { kind: 'address', parts: [{ kind: 'text', text: 'https://docs.example/' }] },
          when: [],
        },
      },
      { id: 'o1', link: null },
    ],
    documentation: [
      { kind: 'operation', subject: 'Route:list', field: 'summary', text: 'All routes' },
      { kind: 'operation', subject: 'Route:list', field: 'summary', text: null },
    ],
    examples: [
      { id: EXAMPLE.id, example: EXAMPLE },
      { id: EXAMPLE.id, example: null },
    ],
    customOperations: [
      { id: 'c1', operation: query },
      { id: 'c1', operation: null },
    ],
  };

  test.each(PART_NAMES)('%s are decided, and go back without a trace', (part) => {
    const [decided, back] = EDITS[part];
    const made = withEdit(nothing, 'main', part, decided);
    expect(made).not.toEqual(nothing);
    expect(withEdit(made, 'main', part, back)).toEqual(nothing);
    for (const name of ['__proto__', 'constructor', 'toString'])
      expect(withEdit(nothing, 'main', 'words', { subject: name, word: null })).toEqual(nothing);
  });

  test('an operation of its id is written in its place, and goes with the word chosen for it', () => {
    const other = { ...query, id: 'c0' };
    const both = [other, query].reduce(
      (choices, operation) => withEdit(choices, 'main', 'customOperations', { id: operation.id, operation }),
      nothing,
    );
    const renamed = { ...other, name: 'latest' };
    const written = withEdit(both, 'main', 'customOperations', { id: 'c0', operation: renamed });
    expect(written.arrangements[0]?.customOperations).toEqual([renamed, query]);
    const named = withEdit(written, 'main', 'words', { subject: 'c0', word: 'last' });
    expect(withoutCustomOperation(named, 'main', 'c0').arrangements).toEqual([
      { ...plainArrangement('main'), customOperations: [query] },
    ]);
  });
});
