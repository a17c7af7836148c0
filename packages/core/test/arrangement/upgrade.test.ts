import { describe, expect, test } from '@jest/globals';
import {
  CHOICES_FORMAT,
  keepChoices,
  plainArrangement,
  readChoices,
  readKeptChoices,
  upgradeChoices,
} from '@isomeros/core/arrangement';
import { UnknownFormatError, type Json } from '@isomeros/core/model';
import fc from 'fast-check';
import { anyArrangement } from '../support/arrangements.js';
import { rounds } from '../support/rounds.js';

describe('choices as an earlier version kept them', () => {
  test.each<readonly [what: string, given: Json, names: readonly string[], upgraded: object]>([
    ['nothing decided', { settings: {}, answered: [] }, [], { arrangements: [plainArrangement('main')] }],
    [
      'settings by the name of an arrangement',
      { settings: {}, arrangements: { main: { depth: 1 } }, answered: [] },
      ['main', 'mobile'],
      {
        arrangements: [{ ...plainArrangement('main'), settings: { depth: 1 } }, plainArrangement('mobile')],
      },
    ],
    [
      'an arrangement that lacks what could not be decided then',
      {
        settings: {},
        arrangements: [{ name: 'a', settings: {}, placements: { Route: 'hidden' } }],
        answered: [],
      },
      [],
      { arrangements: [{ ...plainArrangement('a'), placements: { Route: 'hidden' } }] },
    ],
    [
      'lists joined with commas, at every level',
      {
        settings: { mediaTypes: 'hal, json', security: 'none' },
        arrangements: [
          {
            name: 'a',
            settings: { security: 'bearer, api key' },
            resources: { Route: { defaultSort: '-name,id' }, Port: { defaultSort: '' } },
            operations: { 'Close/custom:act': { access: 'role' }, 'Route:list': { access: 'anonymous' } },
          },
        ],
        answered: ['x'],
      },
      [],
      {
        settings: { mediaTypes: ['hal', 'json'], security: [] },
        arrangements: [
          {
            ...plainArrangement('a'),
            settings: { security: ['bearer', 'api key'] },
            resources: { Route: { defaultSort: ['-name', 'id'] }, Port: { defaultSort: [] } },
            operations: { 'Close/custom:custom': { access: 'role' }, 'Route:list': { access: 'anonymous' } },
          },
        ],
        answered: ['x'],
      },
    ],
    [
      'expansions of lists with pages of their own',
      {
        format: 3,
        settings: { expand: 'on' },
        arrangements: [
          {
            name: 'a',
            settings: { maxPageSize: 50 },
            resources: { R: { maxPageSize: 10 }, S: { pageSize: 5 } },
          },
          { name: 'b', settings: { expand: 'off' }, resources: { R: { maxPageSize: 10 } } },
        ],
        answered: [],
      },
      [],
      {
        arrangements: [
          { resources: { R: { maxPageSize: 10, expandSize: 50 }, S: { pageSize: 5 } } },
          { resources: { R: { maxPageSize: 10 } } },
        ],
      },
    ],
    [
      'custom operations by their old name',
      {
        settings: {},
        arrangements: [
          {
            name: 'a',
            customs: [
              { id: 'c', name: 'close', entity: 'Route', effect: { kind: 'assign', when: [], values: [] } },
            ],
          },
        ],
        answered: [],
      },
      [],
      { arrangements: [{ customOperations: [{ id: 'c', name: 'close' }] }] },
    ],
  ])('%s', (_what, given, names, expected) => {
    const upgraded = upgradeChoices(given, undefined, names);
    expect(upgraded).toMatchObject(expected);
    expect(readChoices(upgraded, '').problems).toEqual([]);
    expect(upgradeChoices(upgraded, CHOICES_FORMAT.newest)).toEqual(upgraded);
  });

  test('are told from those of a later version', () => {
    expect(() => readKeptChoices('{"format":99}')).toThrow(UnknownFormatError);
    expect(() => readKeptChoices('{"format":"2"}')).toThrow('this version reads formats 1 to 4');
  });
});

test('choices are read as they were kept, without their number', () => {
  fc.assert(
    fc.property(anyArrangement, ({ arrangement: { design, own, ...parts } }) => {
      const choices = { settings: design, arrangements: [{ ...parts, settings: own }], answered: ['x'] };
      expect(readKeptChoices(keepChoices(choices))).toEqual(choices);
    }),
    rounds(30),
  );
});
