import { describe, expect, test } from '@jest/globals';
import { takeIn } from '@isomeros/core/intake';
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
  const { source, understood } = reportRows(DDL, takeIn('sql', DDL, 'Routes'));

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
    const before = { settings: { pageSize: 20 }, answered: ['a'] };
    const after = { settings: { implicitId: 'uuid' as const }, answered: ['b'] };
    expect(choiceDifferences(before, after)).toEqual([
      { what: 'pageSize', was: '20', is: 'not set' },
      { what: 'implicitId', was: 'not set', is: 'uuid' },
      { what: 'b', was: 'open', is: 'agreed' },
      { what: 'a', was: 'agreed', is: 'open' },
    ]);
    expect(choiceDifferences(before, before)).toEqual([]);
    expect(choiceDifferences(null, after)).toEqual([]);
  });
});
