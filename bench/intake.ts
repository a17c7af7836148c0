// Reading 1 MiB of dumps of either dialect, of their records, and of hostile text, beside four times as much.
// Run: npm run bench:intake
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { withRecords } from '@isomeros/core/initialRecords';
import { readSql } from '@isomeros/core/intake';

const MIB = 1_048_576;
const BUDGET_MS = 3_000;
/** Four times as much may take so many times as long: linear, with room for collecting garbage. */
const MOST_RATIO = 6;

const fixtures = join(import.meta.dirname, '../packages/core/test/intake/habits');

/** A dump again and again with other names, so that there are more and more tables. */
function grown(file: string, names: RegExp, bytes: number): string {
  const text = readFileSync(join(fixtures, file), 'utf8');
  const parts: string[] = [];
  for (let size = 0, copy = 0; size < bytes; copy++) {
    const part = text.replace(names, (name) => `${name}${copy}`);
    parts.push(part);
    size += part.length;
  }
  return parts.join('');
}

const repeated = (begin: string, part: string, bytes: number): string =>
  begin + part.repeat(Math.max(0, Math.floor((bytes - begin.length) / part.length)));

const TABLES = `CREATE TABLE h (code char(8) PRIMARY KEY);
CREATE TABLE r (id serial PRIMARY KEY, h char(8) NOT NULL REFERENCES h (code), at timestamp, fare numeric(8,2), extra jsonb);
INSERT INTO h VALUES ${Array.from({ length: 1_000 }, (_, at) => `('H${at}')`).join()};
`;

/** A thousand records that so many others lead to. */
function rowsOf(
  bytes: number,
  begin: string,
  row: (at: number) => string,
  between: string,
  end: string,
): string {
  const rows: string[] = [];
  for (let size = 0; size < bytes;) {
    const one = row(rows.length);
    rows.push(one);
    size += one.length + between.length;
  }
  return TABLES + begin + rows.join(between) + end;
}

const SOURCES: readonly { readonly name: string; readonly of: (bytes: number) => string }[] = [
  {
    name: 'a dump of MariaDB',
    of: (bytes) => grown('dump.mariadb.sql', /\b(?:harbours|routes|open_harbours|close_all|half)\b/g, bytes),
  },
  {
    name: 'a dump of PostgreSQL',
    of: (bytes) => grown('dump.postgresql.sql', /\b(?:harbours|routes|status|short_code|touch)\b/g, bytes),
  },
  {
    name: 'records by INSERT',
    of: (bytes) =>
      rowsOf(
        bytes,
        'INSERT INTO r (h, at, fare, extra) VALUES\n',
        (at) => `('H${at % 1_000}','2026-06-14 09:30:00',${at % 90}.50,'{"a": ${at}}')`,
        ',\n',
        ';\n',
      ),
  },
  {
    name: 'records by COPY',
    of: (bytes) =>
      rowsOf(
        bytes,
        'COPY r (h, at, fare, extra) FROM stdin;\n',
        (at) => `H${at % 1_000}\t2026-06-14 09:30:00\t${at % 90}.50\t{"a": ${at}}`,
        '\n',
        '\n\\.\n',
      ),
  },
  { name: 'a quote without an end', of: (bytes) => repeated("CREATE TABLE a (b text DEFAULT '", 'x', bytes) },
  { name: 'parentheses', of: (bytes) => repeated('CREATE TABLE a (b int CHECK ', '(', bytes) },
  { name: 'comments in comments', of: (bytes) => repeated('CREATE TABLE a (b serial); ', '/*', bytes) },
  {
    name: 'routines without an end',
    of: (bytes) => repeated('CREATE TABLE a (b int);', 'CREATE PROCEDURE x() BEGIN SELECT 1; ', bytes),
  },
];

function milliseconds(source: string): number {
  const began = performance.now();
  withRecords(readSql(source, 'Measured'), { now: 0, uuid: () => '' });
  return performance.now() - began;
}

/** The quickest of three. */
const best = (source: string): number =>
  [1, 2, 3].reduce((least) => Math.min(least, milliseconds(source)), Infinity);

for (const { name, of } of SOURCES) {
  const one = best(of(MIB));
  const four = best(of(4 * MIB));
  const ratio = four / one;
  const told = `${one.toFixed(0)} ms for 1 MiB (${BUDGET_MS}), ${ratio.toFixed(1)} times that for 4 MiB (${MOST_RATIO})`;
  console.log(`${name.padEnd(26)} ${told}${one > BUDGET_MS || ratio > MOST_RATIO ? '  MISSED' : ''}`);
}
