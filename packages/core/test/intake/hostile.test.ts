import { describe, expect, test } from '@jest/globals';
import { INTAKE_FORMATS, MAX_INTAKE_BYTES, importModel } from '@isomeros/core/intake';
import { MOST_COLUMNS } from '@isomeros/core/model';
import { parse } from '@isomeros/core/notation';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const DEEP = 100_000;

describe('sources that are hostile, cut short or something else', () => {
  const sources: readonly (readonly [string, string])[] = [
    ['nothing', ''],
    ['only space', ' \n\t\n'],
    ['zero bytes', 'a\u0000b'],
    ['binary', '\ufffd\u0001\u0002PNG\r\n'.repeat(300)],
    ['deep parentheses', `CREATE TABLE a (b int CHECK ${'('.repeat(DEEP)}b > 1${')'.repeat(DEEP)})`],
    ['deep arrays', '['.repeat(DEEP)],
    ['deep objects', '{"a":'.repeat(DEEP)],
    ['deep schema', '{"properties":{"a":'.repeat(200) + '1' + '}}'.repeat(200)],
    ['a member twice', '{"a": 1, "a": 2}'],
    ['JSON cut short', '{"$defs": {"A": {"type": "object", "prop'],
    ['CSV cut short in a quote', 'a,b\n1,"never closed\n2,3\n'],
    ['a CSV of one column', 'a\n1\n2\n'],
    ['a CSV of names only', 'a,b,c'],
    ['columns without names', ',,\n1,2,3\n'],
    ['names of the language', 'constructor,__proto__,toString\n1,2,3\n'],
    ['a JSON array of no objects', '[1, "two", null, [3]]'],
    ['a JSON text that is a number', '42'],
    ['a schema that refers to itself', '{"$ref": "#", "properties": {"a": {"$ref": "#"}}}'],
    [
      'a schema of nonsense',
      '{"$defs": 3, "properties": [1], "required": "x", "type": {"a": 1}, "allOf": 9}',
    ],
    ['many columns', `${Array.from({ length: 2_000 }, (_, i) => `c${i}`).join()}\n${'1,'.repeat(1_999)}1\n`],
    ['a wide first line over many short ones', `${'a,'.repeat(MOST_COLUMNS - 1)}b\n${'1\n'.repeat(50_000)}`],
    ['SQL cut short', 'CREATE TABLE routes (id int PRIMARY KEY, name varch'],
    [
      'SQL of another dialect',
      'CREATE TABLE [dbo].[Routes] ([Id] INT IDENTITY(1,1) NOT NULL, [Name] NVARCHAR(MAX))\nGO',
    ],
    ['a quoted text without end', `CREATE TABLE a (b varchar(9) DEFAULT '${"''".repeat(3_000_000)}`],
    ['a quoted name without end', `CREATE TABLE \`${'``'.repeat(3_000_000)}`],
    ['opening parentheses alone', `CREATE TABLE a (b int CHECK ${'('.repeat(DEEP)}`],
    ['opening brackets alone', `CREATE TABLE a (b serial, c int${'['.repeat(DEEP)}`],
    [
      'dollar tags without an end',
      `CREATE TABLE a (b serial); ${Array.from({ length: DEEP }, (_, tag) => `$a${tag}$`).join(' ')}`,
    ],
    ['comments in comments without an end', `CREATE TABLE a (b serial);${'/*'.repeat(DEEP)}`],
    ['data of COPY without an end', `CREATE TABLE a (b serial);\n${'COPY a FROM stdin;\n'.repeat(DEEP)}`],
    [
      'routines without an end',
      `CREATE TABLE a (b int);${'CREATE PROCEDURE x() BEGIN SELECT 1; '.repeat(9_000)}`,
    ],
    [
      'a table of many columns, each added by itself',
      `CREATE TABLE a (b int);${Array.from({ length: 20_000 }, (_, at) => `ALTER TABLE a ADD c${at} int;`).join('')}`,
    ],
    [
      'many tables that are renamed',
      Array.from(
        { length: 9_000 },
        (_, at) => `CREATE TABLE t${at} (x int); RENAME TABLE t${at} TO u${at};`,
      ).join(''),
    ],
    ['a check of many alternatives', `CREATE TABLE a (b int CHECK (${'b = 1 OR '.repeat(DEEP)}b = 2))`],
    ['lines of nothing', `CREATE TABLE a (b int);${'\n'.repeat(1_000_000)}`],
    ['a line of spaces', `CREATE TABLE a (b int);${' '.repeat(1_000_000)}"`],
    ['a very long name', `CREATE TABLE a (${'b'.repeat(500)} int, c int)`],
    ['values inside of each other', '{"a":'.repeat(50) + '1' + '}'.repeat(50)],
    ['a byte order mark', '\ufeffid,name\n1,Ada\n'],
  ];

  test.each(
    sources.flatMap(([name, source]) => INTAKE_FORMATS.map((format) => [name, format, source] as const)),
  )('%s, as %s, is accounted for', (_name, format, source) => {
    const { text, problem, model } = importModel(format, source, 'Hostile');
    expect(parse(text).diagnostics).toEqual([]);
    if (model.declarations.length === 0) expect(problem).not.toBeNull();
  });

  test('a first line of more columns than are read is refused with the limit', () => {
    const { problem } = importModel('records', `${'a,'.repeat(MOST_COLUMNS)}b\n1\n`, 'Wide');
    expect(problem).toBe('The first line names 16385 columns; at most 16384 are read.');
  });

  test('a source over the limit is refused with the limit', () => {
    const { problem } = importModel('records', 'x'.repeat(MAX_INTAKE_BYTES + 1), 'Large');
    expect(problem).toBe(`The source has ${MAX_INTAKE_BYTES + 1} bytes; the limit is ${MAX_INTAKE_BYTES}.`);
  });

  test.each([
    [
      "CREATE TABLE a (b int);\n\nINSERT INTO a VALUES ('never closed;",
      3,
      'A text begins here and has no end.',
    ],
    ['CREATE TABLE a (b serial);\n/* never\nclosed', 2, 'A comment begins here and has no end.'],
    ['CREATE TABLE a (b serial);\nDO $body$ BEGIN;', 2, 'A text begins here and has no end.'],
    ['CREATE TABLE a (b int);\nCREATE TABLE `never closed (c int);', 2, 'A name begins here and has no end.'],
  ])('%j says where what has no end begins', (source, line, why) => {
    const { leftOut, model } = importModel('sql', source, 'Unended');
    expect(leftOut).toContainEqual(expect.objectContaining({ line, why }));
    expect(model.declarations.map((one) => 'name' in one && one.name)).toContain('A');
  });

  test('a statement that is not understood ends at its own end, whatever stands in it', () => {
    const source = [
      'CREATE TABLE before (a int);',
      'CREATE PROCEDURE p() BEGIN IF 1 THEN SELECT CASE WHEN 1 THEN 2 END; END IF; END;',
      'CREATE TRIGGER t BEFORE INSERT ON before FOR EACH ROW SET NEW.a = 1;',
      'FROBNICATE (((;',
      'CREATE TABLE after (b int);',
    ].join('\n');
    const { model, leftOut } = importModel('sql', source, 'Neighbours');
    expect(model.declarations.map((one) => 'name' in one && one.name)).toEqual(['Before', 'After']);
    expect(leftOut.map(({ line }) => line)).toEqual([2, 3, 4]);
  });

  test('what is wrong with a source says where', () => {
    expect(importModel('json-schema', '{\n  "a": 1,\n  "a": 2\n}', 'Twice').problem).toBe(
      'It is no JSON: The member "a" stands twice. Line 3, column 3.',
    );
    expect(importModel('json-schema', '[]', 'List').problem).toBe('Expected a schema: a JSON object.');
    expect(importModel('sql', 'once upon a time', 'Tale').problem).toBe('No CREATE TABLE was found.');
  });

  const json = fc.json({ maxDepth: 5 });
  const keyword = fc.constantFrom(
    'type',
    'properties',
    'items',
    '$ref',
    '$defs',
    'required',
    'allOf',
    'anyOf',
    'enum',
    'id',
    'format',
    'pattern',
    'readOnly',
    'default',
    '__proto__',
    'route',
  );
  const schema = fc.letrec((tie) => ({
    node: fc.oneof(
      { depthSize: 'small' },
      fc.constantFrom('object', 'array', 'string', 'integer', '#/$defs/A', '#', 'id', '^a|b$', '(', 'uuid'),
      fc.boolean(),
      fc.integer(),
      fc.array(tie('node'), { maxLength: 3 }),
      fc.dictionary(keyword, tie('node'), { maxKeys: 5 }),
    ),
  })).node;

  test('any JSON at all is read as a schema and as records without a throw, to a sound text', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          json,
          schema.map((value) => JSON.stringify(value)),
        ),
        (text) => {
          for (const format of ['json-schema', 'records'] as const)
            expect(parse(importModel(format, text, 'Any').text).diagnostics).toEqual([]);
        },
      ),
      rounds(400),
    );
  });

  test('any lines of values are read without a throw, to a sound text', () => {
    const cell = fc.oneof(
      fc.constantFrom('1', '2.50', 'true', '2026-06-14', '', '"', 'a b', 'id', 'é'),
      fc.string({ maxLength: 5 }),
    );
    const line = fc.array(cell, { maxLength: 6 }).map((cells) => cells.join(','));
    fc.assert(
      fc.property(fc.array(line, { maxLength: 8 }), (lines) => {
        expect(parse(importModel('records', lines.join('\n'), 'Any').text).diagnostics).toEqual([]);
      }),
      rounds(300),
    );
  });
});
