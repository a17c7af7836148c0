import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { readSql, type Intake } from '@isomeros/core/intake';
import { parse } from '@isomeros/core/notation';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

const intake = (sql: string): Intake => readSql(sql, 'Test');
/** What of a model DDL becomes, without its name line. */
const textOf = (sql: string): string => intake(sql).text.replace('design "Test"\n\n', '').trim();

interface Case {
  readonly name: string;
  readonly sql: string;
  readonly text: string;
}

const PARENT = 'CREATE TABLE routes (id int AUTO_INCREMENT PRIMARY KEY);';

const CASES: readonly Case[] = [
  {
    name: 'types of MariaDB',
    sql: 'CREATE TABLE `a` (`b` varchar(20) NOT NULL, c tinyint(1), d decimal(8,2) unsigned, e datetime, f json)',
    text: 'entity A\n  b: text(..20), required\n  c: boolean\n  d: decimal(0.., scale 2)\n  e: instant\n  f: json',
  },
  {
    name: 'types of PostgreSQL',
    sql: 'CREATE TABLE "a" (b text[], c timestamp with time zone, d double precision, e character varying(9), f uuid, g interval)',
    text: 'entity A\n  b: list of text\n  c: instant\n  d: decimal\n  e: text(..9)\n  f: uuid\n  g: duration',
  },
  {
    name: 'enumerations of both',
    sql: "CREATE TYPE size AS ENUM ('s', 'very large'); CREATE TABLE a (b size, c enum('x','y') DEFAULT 'x', d text CHECK (d IN ('p','q')))",
    text: 'entity A\n  b: choice(s, "very large")\n  c: choice(x, y), default x\n  d: choice(p, q)',
  },
  {
    name: 'ranges from checks',
    sql: 'CREATE TABLE a (b int CHECK (b BETWEEN 1 AND 6), c int, CHECK (c >= 0 AND c < 10))',
    text: 'entity A\n  b: integer(1..6)\n  c: integer(0..9)',
  },
  {
    name: 'comments become descriptions',
    sql: "CREATE TABLE a (b date COMMENT 'When') COMMENT='It''s a'; CREATE TABLE c (d date); COMMENT ON COLUMN c.d IS 'Day';",
    text: 'entity A "It\'s a"\n  b: date "When"\n\nentity C\n  d: date "Day"',
  },
  {
    name: 'times the server keeps',
    sql: 'CREATE TABLE a (b timestamp NOT NULL DEFAULT CURRENT_TIMESTAMP, c timestamp NULL DEFAULT CURRENT_TIMESTAMP ON UPDATE CURRENT_TIMESTAMP)',
    text: 'entity A\n  b: instant, generated, required\n  c: instant, touched',
  },
  {
    name: 'keys of several kinds',
    sql: 'CREATE TABLE a (id bigserial PRIMARY KEY); CREATE TABLE b (id uuid PRIMARY KEY DEFAULT gen_random_uuid()); CREATE TABLE c (code char(3), PRIMARY KEY (code))',
    text: 'entity A\n\nentity B\n  id: uuid, key, generated\n\nentity C\n  code: text(..3), key',
  },
  {
    name: 'what goes with its parent is owned',
    sql: `${PARENT} CREATE TABLE stops (id int PRIMARY KEY, route_id int NOT NULL REFERENCES routes(id) ON DELETE CASCADE)`,
    text: 'entity Route\n\nentity Stop\n\neach Route owns many Stop as stops, back as route',
  },
  {
    name: 'what goes with its parent and is unique fills a slot',
    sql: `${PARENT} CREATE TABLE maps (route_id int PRIMARY KEY REFERENCES routes(id) ON DELETE CASCADE, uri text)`,
    text: 'entity Route\n\nentity Map\n  uri: uri\n\neach Route owns optional Map as map, back as route',
  },
  {
    name: 'other foreign keys refer',
    sql: `${PARENT} CREATE TABLE notes (id int PRIMARY KEY, route_id int, FOREIGN KEY (route_id) REFERENCES routes(id) ON DELETE SET NULL)`,
    text: 'entity Route\n\nentity Note\n\neach Note refers to optional Route as route, back as notes, on remove detach',
  },
  {
    name: 'a join table is a pairing',
    sql: `${PARENT} CREATE TABLE tags (id int PRIMARY KEY); CREATE TABLE route_tags (route_id int REFERENCES routes(id), tag_id int REFERENCES tags(id), PRIMARY KEY (route_id, tag_id))`,
    text: 'entity Route\n\nentity Tag\n\neach Route pairs with many Tag as tags, back as routes',
  },
  {
    name: 'generated columns of both spellings are computed',
    sql: "CREATE TABLE a (id int PRIMARY KEY, seats int NOT NULL, fare decimal(8,2), code char(3), name varchar(20), total decimal(10,2) GENERATED ALWAYS AS (seats * fare) STORED, `label` varchar(40) AS (CONCAT(`code`, ' ', `name`)) VIRTUAL, title text GENERATED ALWAYS AS (((code)::text || ' '::text) || name) STORED, spare int AS (100 - (seats + 2) * 2) PERSISTENT)",
    text: 'entity A\n  seats: integer, required\n  fare: decimal(scale 2)\n  code: text(..3)\n  name: text(..20)\n  total: decimal(scale 2), computed seats * fare\n  label: text, computed code & " " & name\n  title: text, computed code & " " & name\n  spare: integer, computed 100 - (seats + 2) * 2',
  },
  {
    name: 'what cannot be said is stored, and read-only',
    sql: 'CREATE TABLE a (id int PRIMARY KEY, seats int, berths int, each_one int AS (seats / berths), low varchar(9) AS (lower(code)), code varchar(9), twice int AS (seats * 2) UNIQUE, odd int AS (code * 2), none int AS (nothing + 1))',
    text: 'entity A\n  seats: integer\n  berths: integer\n  eachOne: integer, read-only\n  low: text(..9), read-only\n  code: text(..9)\n  twice: integer, read-only\n  odd: integer, read-only\n  none: integer, read-only',
  },
  {
    name: 'columns of a primary key are required, whatever their columns say',
    sql: 'CREATE TABLE a (PRIMARY KEY (x, y), x int, y date)',
    text: 'entity A\n  x: integer, required\n  y: date, required\n  unique (x, y)',
  },
  {
    name: 'columns of a primary key stay required when they are declared anew or it is dropped',
    sql: 'CREATE TABLE a (x int, y date, z int PRIMARY KEY); ALTER TABLE a DROP PRIMARY KEY, ADD PRIMARY KEY (x, y); ALTER TABLE a MODIFY x bigint',
    text: 'entity A\n  x: integer, required\n  y: date, required\n  z: integer, required\n  unique (x, y)',
  },
  {
    name: 'a reference that is part of a primary key leads somewhere',
    sql: `${PARENT} CREATE TABLE legs (route_id int REFERENCES routes(id), no int, PRIMARY KEY (route_id, no))`,
    text: 'entity Route\n\nentity Leg\n  no: integer, key within route\n\neach Leg refers to one Route as route, back as legs',
  },
  {
    name: 'secrets are never returned',
    sql: 'CREATE TABLE a (password_hash varchar(90) NOT NULL)',
    text: 'entity A\n  passwordHash: text(..90), required, write-only',
  },
];

describe('SQL DDL', () => {
  test.each(CASES)('$name', ({ sql, text }) => {
    expect(textOf(sql)).toBe(text);
  });

  test('a whole schema of both spellings is read, and accounted for', () => {
    const { text, understood, asked, leftOut } = intake(
      readFileSync(join(import.meta.dirname, 'corpus/shore-office.sql'), 'utf8'),
    );
    expect(parse(text).diagnostics).toEqual([]);
    expect(text).toContain('each Route owns many Sailing as sailings, back as route');
    expect(text).toContain(
      'each Sailing pairs with many Crew as crews, back as sailings, carrying SailingCrew',
    );
    expect(text).toContain('unique (origin, destination)');
    expect(understood.length).toBeGreaterThan(8);
    expect(asked.map(({ question }) => question)).toContain('Can a Sailing exist without its Route?');
    expect(leftOut.map(({ source }) => source)).toEqual(['CREATE VIEW x AS SELECT 1', 'harbours: 2 values']);
  });

  test('what a column is computed from is accounted for where it cannot be said', () => {
    const { leftOut } = intake('CREATE TABLE a (b text, c text GENERATED ALWAYS AS (lower(b)) STORED);');
    expect(leftOut).toMatchObject([
      {
        source: 'c AS (lower ( b ))',
        why: 'A model cannot say how it is computed; it is stored and read-only.',
      },
    ]);
  });

  test.each([
    ['nothing', ''],
    ['no SQL at all', 'once upon a time; there was'],
    ['a table cut short', 'CREATE TABLE a (b int, c varch'],
    ['an open quote', "CREATE TABLE a (b text DEFAULT 'never closed)"],
    ['an open comment', '/* never closed CREATE TABLE a (b int);'],
    ['binary', '\u0000\u0001\ufffd'.repeat(500)],
    ['deep parentheses', `CREATE TABLE a (b int CHECK ${'('.repeat(20_000)}b > 1${')'.repeat(20_000)})`],
    ['a table that refers to nothing there', 'CREATE TABLE a (b int REFERENCES nowhere(id))'],
    ['two tables of one name in singular and plural', 'CREATE TABLE cats (a int); CREATE TABLE cat (b int)'],
    ['names of the language', 'CREATE TABLE constructor (__proto__ int, toString text)'],
  ])('%s is read without a throw, as a sound text', (_name, sql) => {
    expect(parse(intake(sql).text).diagnostics).toEqual([]);
  });

  test('whatever is typed, nothing is thrown', () => {
    const part = fc.oneof(
      fc.constantFrom(
        'CREATE TABLE ',
        'a',
        'b ',
        '(',
        ')',
        ',',
        ';',
        'int',
        'PRIMARY KEY',
        'REFERENCES a(b)',
        'ON DELETE CASCADE',
        "'x'",
        'CHECK',
        'ALTER TABLE a ADD ',
        'enum(',
        '`',
        '"',
        ' ',
      ),
      fc.string({ maxLength: 6 }),
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 40 }), (parts) => {
        expect(() => intake(parts.join(''))).not.toThrow();
      }),
      rounds(300),
    );
  });
});
