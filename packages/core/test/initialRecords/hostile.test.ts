import { describe, expect, test } from '@jest/globals';
import { findViolations } from '@isomeros/core/engine';
import { withRecords } from '@isomeros/core/initialRecords';
import { importModel, type IntakeFormat } from '@isomeros/core/intake';

const MANY = 100_000;
const TABLE =
  'CREATE TABLE a (id int PRIMARY KEY, next int NOT NULL, FOREIGN KEY (next) REFERENCES a (id));\n';
const TYPES =
  'CREATE TABLE t (id int PRIMARY KEY, l text[], j jsonb, h hstore, d interval, at timestamp, b bytea);\n';

const inserted = (rows: readonly string[]): string => `INSERT INTO a VALUES ${rows.join()};`;
const upTo = (most: number, row: (at: number) => string): readonly string[] =>
  Array.from({ length: most }, (_, at) => row(at));
const one = (column: string, text: string): string =>
  `${TYPES}INSERT INTO t (id, ${column}) VALUES (1, '${text}');`;

describe('records that are hostile are accounted for, in one pass', () => {
  test.each<[string, IntakeFormat, string, number]>([
    ['parentheses without an end', 'sql', `${TABLE}INSERT INTO a VALUES ${'('.repeat(MANY)}`, 0],
    ['lists of nothing', 'sql', `${TABLE}INSERT INTO a VALUES ${'(),'.repeat(MANY)}()`, 0],
    [
      'each leads to the next, the last to nothing',
      'sql',
      TABLE + inserted(upTo(MANY, (at) => `(${at},${at + 1})`)),
      0,
    ],
    [
      'all lead to one another in a circle',
      'sql',
      TABLE + inserted(upTo(MANY, (at) => `(${at},${(at + 1) % MANY})`)),
      MANY,
    ],
    [
      'all lead to one that leads to nothing',
      'sql',
      TABLE + inserted(upTo(MANY, (at) => `(${at},${at === 0 ? -1 : 0})`)),
      0,
    ],
    ['the same key again and again', 'sql', TABLE + inserted(upTo(MANY, () => '(1,1)')), 1],
    [
      'copied lines of tabs',
      'sql',
      `${TABLE}COPY a FROM stdin;\n${`${'\t'.repeat(50)}\n`.repeat(20_000)}\\.\n`,
      0,
    ],
    ['an array of braces', 'sql', one('l', '{'.repeat(MANY)), 1],
    ['an array of quotes', 'sql', one('l', `{${'"'.repeat(MANY)}}`), 1],
    ['an array of backslashes', 'sql', one('l', `{"${'\\\\'.repeat(MANY)}}`), 1],
    ['JSON that is deep', 'sql', one('j', '['.repeat(MANY)), 1],
    ['pairs without an end', 'sql', one('h', '"a"=>"'.repeat(MANY)), 1],
    ['pairs of spaces', 'sql', one('h', `"a"${' '.repeat(MANY)}`), 1],
    ['days upon days', 'sql', one('d', '1 days'.repeat(MANY)), 1],
    ['a moment of digits', 'sql', one('at', '2026-06-14 09:30:00.'.padEnd(MANY, '1')), 1],
    ['odd digits of bytes', 'sql', one('b', `\\x${'0'.repeat(MANY + 1)}`), 1],
    [
      'objects in objects with keys',
      'records',
      `[${upTo(2_000, (at) => `{"id":${at},"in":{"id":1,"of":{"id":2}}}`).join()}]`,
      2_002,
    ],
    [
      'names of every object',
      'records',
      `[${upTo(100, (at) => `{"id":${at},"__proto__":{"toString":1}}`).join()}]`,
      100,
    ],
  ])('%s', (_, format, source, count) => {
    let made = 0;
    const runtime = {
      now: 0,
      uuid: (): string => `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`,
    };
    const { model, rows, counts } = withRecords(importModel(format, source, 'Hostile'), runtime);
    expect(rows).toHaveLength(count);
    expect(findViolations(model, rows)).toEqual([]);
    for (const { found, understood, asked, leftOut } of counts)
      expect(understood + asked + leftOut).toBe(found);
  });
});
