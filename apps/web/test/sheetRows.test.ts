import { describe, expect, test } from '@jest/globals';
import { arrangementOf, NO_CHOICES, withEdit } from '@isomeros/core/arrangement';
import { ownTag, type Contract, type Operation } from '@isomeros/core/contract';
import { derive } from '@isomeros/core/derivation';
import { parse } from '@isomeros/core/notation';
import { severitiesOf } from '../src/findings/findingsAt.js';
import { narrowRows, sheetRows, stepFrom, tallyOf, type SheetRow } from '../src/contract/sheetRows.js';

const MODEL = parse(
  'entity Route\n  name: text\n\nentity Sailing\n  places: integer\n\neach Route owns many Sailing\n',
).model;

const SAID = [
  ['Route:list', 'tags', `Route, ${ownTag('Timetable')}`],
  ['Route:list', 'summary', 'All routes'],
  ['Route/item:remove', 'unpublished', 'yes'],
  ['Route/item:remove', 'deprecated', '2027-01-31'],
] as const;

const choices = SAID.reduce(
  (before, [subject, field, text]) =>
    withEdit(before, 'main', 'documentation', { kind: 'operation', subject, field, text }),
  NO_CHOICES,
);
const CONTRACT: Contract = derive(MODEL, arrangementOf('main', choices));
const ALL = { isFound: () => true, folded: new Set<string>() };

const shown = (rows: readonly SheetRow[]): readonly string[] =>
  rows.map((row) => (row.kind === 'group' ? `= ${row.title}` : row.label));

const operation = (id: string): Operation => {
  const found = CONTRACT.operations.find((one) => one.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};

describe('the rows of the sheet', () => {
  test('are the path tree', () => {
    expect(shown(sheetRows(CONTRACT, 'path'))).toEqual([
      '/',
      '/routes',
      '/{routeId}',
      '/sailings',
      '/{sailingId}',
    ]);
  });

  test('stand together by what they show, paths without their middle', () => {
    expect(shown(sheetRows(CONTRACT, 'resource'))).toEqual([
      '= entry',
      '/',
      '= Route',
      '/routes',
      '/routes/{routeId}',
      '= Sailing',
      '/routes/…/sailings',
      '/routes/…/{sailingId}',
    ]);
  });

  test('stand together by their tags, in each of them', () => {
    expect(shown(sheetRows(CONTRACT, 'tag'))).toEqual(
      expect.arrayContaining(['= Routes', '= Timetable', '/routes']),
    );
    const rows = sheetRows(CONTRACT, 'tag').filter((row) => row.kind === 'path' && row.label === '/routes');
    expect(rows).toHaveLength(2);
    expect(new Set(rows.map(({ id }) => id)).size).toBe(2);
  });

  test('are those with something found, and their groups', () => {
    const rows = narrowRows(sheetRows(CONTRACT, 'resource'), {
      ...ALL,
      isFound: ({ id }) => id === 'readSailing',
    });
    expect(shown(rows)).toEqual(['= Sailing', '/routes/…/{sailingId}']);
  });

  test('are not shown where their group is folded', () => {
    const rows = narrowRows(sheetRows(CONTRACT, 'resource'), { ...ALL, folded: new Set(['Route']) });
    expect(shown(rows)).toContain('= Route');
    expect(shown(rows)).not.toContain('/routes');
  });
});

describe('the keys', () => {
  const rows = sheetRows(CONTRACT, 'resource');
  const from = (id: string, key: string): string | undefined => {
    const at = rows.findIndex((row) => row.kind === 'path' && row.operations.some((one) => one.id === id));
    return stepFrom(rows, at, operation(id), key)?.operation.id;
  };

  test.each([
    ['listRoutes', 'ArrowRight', 'createRoute'],
    ['createRoute', 'ArrowRight', undefined],
    ['createRoute', 'ArrowLeft', 'listRoutes'],
    ['listRoutes', 'ArrowDown', 'readRoute'],
    ['readRoute', 'ArrowDown', 'listSailings'],
    ['createSailing', 'ArrowUp', 'readRoute'],
    ['removeSailing', 'Home', 'readEntry'],
    ['listRoutes', 'End', 'readSailing'],
    ['listRoutes', 'x', undefined],
  ])('from %s by %s to %s', (id, key, expected) => {
    expect(from(id, key)).toBe(expected);
  });
});

test('what is documented is counted among what is published', () => {
  const { length } = CONTRACT.operations;
  expect(tallyOf(CONTRACT.operations)).toEqual({
    documented: 1,
    undocumented: length - 2,
    unpublished: 1,
    deprecated: 1,
  });
});

test('what is found in an operation is marked at its path', () => {
  const found = { id: 'documentation.missing', severity: 'doubtful', message: '', reasons: [] } as const;
  const marks = severitiesOf(
    [
      { ...found, about: 'readSailing' },
      { ...found, about: 'Route:create', severity: 'error' },
    ],
    CONTRACT,
  );
  expect([...marks]).toEqual([
    ['Route', 'error'],
    ['Sailing/item', 'doubtful'],
  ]);
});
