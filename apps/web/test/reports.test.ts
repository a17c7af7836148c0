import { describe, expect, test } from '@jest/globals';
import {
  arrangementOf,
  NO_CHOICES,
  PART_NAMES,
  plainArrangement,
  type PartName,
} from '@isomeros/core/arrangement';
import { derive } from '@isomeros/core/derivation';
import { importModel } from '@isomeros/core/intake';
import { parse } from '@isomeros/core/notation';
import { afterStep } from '../src/design/derivation/afterStep.js';
import { changeInWords } from '../src/arrange/usePathsSinceOpened.js';
import { groupedRows, groupsOf, holdsAll } from '../src/intake/reportGroups.js';
import { reportRows } from '../src/intake/reportRows.js';
import { designName, kindOfFile } from '../src/intake/sources.js';
import { choiceDifferences } from '../src/revisions/choiceDifferences.js';

const DDL = `-- a comment
CREATE TABLE routes (
  id int AUTO_INCREMENT PRIMARY KEY,
  shape polygon,
  pin text
);
CREATE VIEW v AS SELECT 1;
`;

describe('the two sides of a report', () => {
  const { source, understood } = reportRows(DDL, importModel('sql', DDL, 'Routes'));

  test('each line of the source says what became of it', () => {
    expect(source.map(({ line, understood: is, leftOut, asked }) => [line, is, leftOut, asked])).toEqual([
      [1, false, false, []],
      [2, true, false, []],
      [3, true, false, []],
      [4, true, true, []],
      [5, true, false, [1]],
      [6, true, false, []],
      [7, false, true, []],
    ]);
  });

  test('each line of the model says where it is from', () => {
    expect(understood.map(({ text, because, from }) => [text.trim(), because, from?.line ?? null])).toEqual([
      ['design "Routes"', '', null],
      ['entity Route', 'a key the server counts', 2],
      ['pin: text, write-only', 'text, may be null', 5],
    ]);
  });
});

describe('a report in groups', () => {
  const rows = ['a 1', 'b 1', 'a 2'];
  const groups = groupsOf(rows, (row) => row.slice(0, 1));
  const many = groupsOf(
    Array.from({ length: 100 }, (_, at) => `row ${at}`),
    (row) => row.slice(-1),
  );

  test('stands open where there are few rows', () => {
    expect(groupedRows(groups, (row) => row, new Set()).map(({ key }) => key)).toEqual([
      'group a',
      'a 1',
      'a 2',
      'group b',
      'b 1',
    ]);
  });

  test('is folded where there are many, but for what was unfolded', () => {
    const shown = groupedRows(many, (row) => row, new Set(['3']));
    expect(shown).toHaveLength(10 + 10);
    expect(shown.filter((one) => one.kind === 'group' && one.isOpen).map(({ key }) => key)).toEqual([
      'group 3',
    ]);
  });

  test.each([
    ['', true],
    ['token may', true],
    ['TOKEN', true],
    ['token blob', false],
  ])('%j typed is found: %s', (typed, found) => {
    expect(holdsAll(typed, ['May token ever be returned?', 'Its name says so.'])).toBe(found);
  });
});

describe('files', () => {
  test.each([
    ['x.sql', '', 'sql'],
    ['x.csv', 'a,b', 'records'],
    ['x.NDJSON', '{}', 'records'],
    ['x.json', '[{"a":1}]', 'records'],
    ['x.json', '{"$schema":"…","type":"object"}', 'json-schema'],
    ['x.isomeros.json', '{"$schema":"urn:isomeros:design-file:1","format": "isomeros-design"}', 'design'],
    ['x.iso.txt', 'entity A', 'notation'],
  ])('%s with %s is %s', (name, text, kind) => {
    expect(kindOfFile(name, text)).toBe(kind);
  });

  test.each([
    ['sound-ferries.sql', 'Sound ferries'],
    ['fleet.draft-07.json', 'Fleet draft 07'],
    ['.sql', ''],
    ['', ''],
  ])('%s names a design %s', (file, name) => {
    expect(designName(file)).toBe(name);
  });
});

describe('decisions that two states differ in', () => {
  test('are told by their names, what was and what is', () => {
    const main = {
      ...plainArrangement('main'),
      settings: { depth: 3 },
      placements: { Route: 'hidden' as const },
    };
    const before = { settings: { pageSize: 20 }, arrangements: [main], answered: ['a'] };
    const other = { ...plainArrangement('other'), resources: { Route: { pageSize: 9 } } };
    const after = {
      settings: { implicitId: 'uuid' as const },
      arrangements: [plainArrangement('main'), other],
      answered: ['b'],
    };
    expect(choiceDifferences(before, after)).toEqual([
      { what: 'Page size', of: null, was: '20', is: 'not set' },
      { what: 'Implicit id', of: null, was: 'not set', is: 'uuid' },
      { what: 'Ids in a path, at most', of: 'main', was: '3', is: 'not set' },
      { what: 'Place of Route', of: 'main', was: 'hidden', is: 'not set' },
      { what: 'Arrangement', of: 'other', was: 'not there', is: 'there' },
      { what: 'Page size of Route', of: 'other', was: 'not set', is: '9' },
      { what: 'b', of: null, was: 'open', is: 'agreed' },
      { what: 'a', of: null, was: 'agreed', is: 'open' },
    ]);
    expect(choiceDifferences(before, before)).toEqual([]);
    expect(choiceDifferences(null, after)).toEqual([]);
  });

  test('are found in every part of an arrangement', () => {
    const effect = { kind: 'query' as const, filters: [], order: [], limit: 3 };
    const parts = {
      settings: { depth: 3 },
      resources: { Route: { pageSize: 9 } },
      operations: { 'Route:list': { unknownParameters: 'ignored' as const } },
      placements: { Route: 'hidden' as const },
      words: { Route: 'lines' },
      exposures: { Route: { 'Route.name': { out: 'no' as const } } },
      links: { Route: { up: { leftOut: true as const } } },
      documentation: { operation: { 'Route:list': { summary: 'All routes' } } },
      examples: [
        {
          id: 'e1',
          name: 'north',
          operation: 'Route:list',
          ids: [],
          query: '',
          headers: {},
          body: null,
          members: {},
          records: [],
          now: 0,
          status: 200,
        },
      ],
      ownLinks: [
        {
          id: 'o1',
          resource: 'entry',
          relation: 'manual',
          target: {
            kind: 'address' as const,
            parts: [{ kind: 'text' as const, text: 'https://docs.example/' }],
          },
          when: [],
        },
      ],
      customOperations: [{ id: 'c1', name: 'newest', entity: 'Route', effect }],
    } satisfies Record<PartName, unknown>;
    for (const part of PART_NAMES) {
      const changed = { ...plainArrangement('main'), [part]: parts[part] };
      const [before, after] = [NO_CHOICES, { ...NO_CHOICES, arrangements: [changed] }];
      expect([part, choiceDifferences(before, after).length]).toEqual([part, 1]);
      expect(choiceDifferences(after, before)).toMatchObject([{ of: 'main', is: 'not set' }]);
    }
  });
});

describe('what a step would lead to', () => {
  test('keeps what was decided about something that was renamed since', () => {
    const text = 'entity Line\nentity Stop\neach Line owns many Stop as stops\n';
    const { model } = parse(text, { Line: 'Route', 'Line>Stop:stops': 'Route>Stop:halts' });
    const edit = { kind: 'name-way-back', relationship: 'Route>Stop:halts', back: 'line' } as const;
    const own = { ...plainArrangement('main'), words: { Route: 'ways' } };
    const choices = { ...NO_CHOICES, arrangements: [own] };
    const next = afterStep(model, choices, { kind: 'edit', edit });
    if (next === null) throw new Error('The edit leaves a text with errors.');
    const { resources } = derive(next.model, arrangementOf('main', next.choices));
    expect(resources.map(({ path }) => path)).toContain('/ways/{lineId}/stops');
  });
});

describe('a change of the paths', () => {
  test('what it changes in the paths is told in words', () => {
    const before = { root: '/api/v1', paths: new Set(['/a', '/b']) };
    expect(changeInWords(before, before)).toBeNull();
    expect(changeInWords(before, { root: '/v2', paths: new Set(['/a', '/c', '/d']) })).toBe(
      'under /v2 now; 2 added, 1 removed',
    );
  });
});
