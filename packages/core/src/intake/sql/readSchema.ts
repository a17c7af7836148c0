import { replaceItems } from '../../model/index.js';
import type { IntakeProgress, Report } from '../report.js';
import { readAlterTable } from './readAlter.js';
import { readRows } from './readRows.js';
import { readParts, readColumnType } from './readColumn.js';
import { commentIn, SqlReader, splitAtCommas, textOf } from './reader.js';
import { passUsing, READ, readCreateTable, unread, type StatementRead } from './readTable.js';
import { columnNamed, newColumn, newTable, same, SqlSchema, type SqlTable } from './schema.js';
import { sqlScript } from './statements.js';
import type { SqlToken, Unended } from './tokens.js';

/** Reads what DDL declares; the last state counts. Statements that declare nothing of a model are noted and left out. */
export function readSqlSchema(source: string, report: Report, progress: IntakeProgress): SqlSchema {
  const { dialect, statements, unended } = sqlScript(source, (done) => progress(done / 2));
  const schema = new SqlSchema(dialect);
  schema.countsZero = dialect === 'mariadb' && !/\bNO_AUTO_VALUE_ON_ZERO\b/.test(source);
  statements.forEach((statement, index) => {
    progress(0.5 + index / statements.length / 2);
    if (statement.kind === 'command') return;
    const reader = new SqlReader(statement.tokens);
    const read = readRows(schema, statement, report) ?? readStatement(schema, reader);
    if (!read.ok) report.leave(reader.lines, textOf(statement.tokens.slice(0, 16)), read.why);
  });
  for (const one of unended) tellUnended(one, report);
  for (const table of schema.tables) {
    sortForeign(table);
    findJson(table);
  }
  return schema;
}

function tellUnended({ what, line }: Unended, report: Report): void {
  report.leave({ line, endLine: line }, '', `A ${what} begins here and has no end.`);
}

/** Foreign keys in the order of their columns, wherever they were declared: cycles and dumps add theirs last. */
function sortForeign({ columns, foreign }: SqlTable): void {
  const positions = new Map(columns.map(({ name }, at) => [name.toLowerCase(), at]));
  const position = (name = ''): number => positions.get(name.toLowerCase()) ?? columns.length;
  foreign.sort((one, other) => position(one.columns[0]) - position(other.columns[0]));
}

/** A text that is always JSON is a column of JSON, as MariaDB writes one out. */
function findJson(table: SqlTable): void {
  const left = table.checks.filter(({ text }) => {
    const name = /^json_valid \( (.+) \)$/i.exec(text)?.[1] ?? null;
    const column = columnNamed(table, name);
    if (column?.type.endsWith('text') !== true) return true;
    column.type = 'json';
    return false;
  });
  replaceItems(table.checks, left);
}

/** What dumps hold besides declarations; nothing is lost by passing over it. */
const HARMLESS: ReadonlySet<string> = new Set([
  'SET',
  'BEGIN',
  'COMMIT',
  'START',
  'LOCK',
  'UNLOCK',
  'GRANT',
  'REVOKE',
  'ANALYZE',
  'VACUUM',
  'SELECT',
  'END',
]);

const WRITTEN_LATER = 'Records are taken as they are written first.';

/** Why a statement has no place in a model, by a word near its beginning. */
const WHY: Readonly<Record<string, string>> = {
  VIEW: 'A view holds nothing of its own.',
  UPDATE: WRITTEN_LATER,
  DELETE: WRITTEN_LATER,
  TRUNCATE: WRITTEN_LATER,
  TRIGGER: 'A model has no code; say what it does in your own server.',
  FUNCTION: 'A model has no code; say what it does in your own server.',
  PROCEDURE: 'A model has no code; say what it does in your own server.',
  EVENT: 'A model has no code; say what it does in your own server.',
  DO: 'A model has no code; say what it does in your own server.',
  RULE: 'A model has no code; say what it does in your own server.',
};

function whyNot(tokens: readonly SqlToken[]): string {
  for (const { word } of tokens.slice(0, 20)) {
    const why = Object.hasOwn(WHY, word) ? WHY[word] : undefined;
    if (why !== undefined) return why;
    if (word === 'TABLE' || word === 'ON') break;
  }
  return 'It declares no table, column or key.';
}

function readStatement(schema: SqlSchema, reader: SqlReader): StatementRead {
  const first = reader.peek()?.word ?? '';
  if (reader.take('CREATE')) return readCreate(schema, reader);
  if (reader.take('ALTER', 'TABLE')) return readAlterTable(schema, reader);
  if (reader.take('DROP')) return readDrop(schema, reader);
  if (reader.take('RENAME', 'TABLE')) return readRename(schema, reader);
  if (reader.take('COMMENT', 'ON'))
    return readComment(schema, reader) ? READ : unread('It is about nothing of a model.');
  if (reader.take('USE')) {
    schema.current = reader.identifier();
    return READ;
  }
  if (reader.take('ALTER')) return READ;
  return HARMLESS.has(first) ? READ : unread(whyNot(reader.rest()));
}

function readCreate(schema: SqlSchema, reader: SqlReader): StatementRead {
  reader.take('OR', 'REPLACE');
  if (reader.takeOne('GLOBAL', 'LOCAL') && reader.peek()?.word !== 'TEMPORARY')
    return unread('It declares no table, column or key.');
  if (reader.takeOne('TEMPORARY', 'TEMP')) return unread('What is temporary is not kept.');
  if (reader.take('FOREIGN', 'TABLE')) return readCreateTable(schema, reader);
  reader.take('UNLOGGED');
  if (reader.take('TABLE')) return readCreateTable(schema, reader);
  if (reader.take('UNIQUE', 'INDEX')) return readUniqueIndex(schema, reader);
  if (reader.take('TYPE')) return readEnumType(schema, reader);
  if (reader.take('DOMAIN')) return readDomain(schema, reader);
  const word = reader.peek()?.word ?? '';
  if (
    [
      'INDEX',
      'FULLTEXT',
      'SPATIAL',
      'SCHEMA',
      'DATABASE',
      'EXTENSION',
      'SEQUENCE',
      'ROLE',
      'USER',
      'COLLATION',
    ].includes(word)
  )
    return READ;
  return unread(whyNot(reader.rest()));
}

function readDrop(schema: SqlSchema, reader: SqlReader): StatementRead {
  if (!reader.take('TABLE')) return READ;
  reader.take('IF', 'EXISTS');
  for (const part of splitAtCommas(reader.rest())) {
    const name = new SqlReader(part).name();
    const table = name === null ? undefined : schema.table(name);
    if (table !== undefined) schema.remove(table);
  }
  return READ;
}

function readRename(schema: SqlSchema, reader: SqlReader): StatementRead {
  const unknown: string[] = [];
  for (const part of splitAtCommas(reader.rest())) {
    const one = new SqlReader(part);
    const old = one.name();
    const table = old === null ? undefined : schema.table(old);
    const name = one.take('TO') ? one.name() : null;
    if (table === undefined || name === null) unknown.push(old?.name ?? '');
    else schema.rename(table, name.name);
  }
  return unknown.length === 0 ? READ : unread(`There is no table ${unknown.join(', ')}.`);
}

function readUniqueIndex(schema: SqlSchema, reader: SqlReader): StatementRead {
  const { lines } = reader;
  reader.take('CONCURRENTLY');
  reader.take('IF', 'NOT', 'EXISTS');
  const name = reader.peek()?.word === 'ON' ? null : reader.identifier();
  passUsing(reader);
  reader.take('ON');
  reader.take('ONLY');
  const on = reader.name();
  const table = on === null ? undefined : schema.table(on);
  if (table === undefined) return unread(`There is no table ${on?.name ?? ''}.`);
  passUsing(reader);
  const parts = splitAtCommas(reader.parenthesised());
  const columns = parts.flatMap((part) => columnOf(part) ?? []);
  if (columns.length < parts.length)
    return unread('It is unique over an expression; a model says so of attributes alone.');
  if (reader.take('INCLUDE')) reader.parenthesised();
  if (reader.rest().some(({ word }) => word === 'WHERE'))
    return unread('It is unique among some of the rows; a model says so of all.');
  table.uniques.push({ name, columns, lines });
  return READ;
}

/** The column that an index names, with whatever order or length; `null` where it is an expression. */
function columnOf(part: readonly SqlToken[]): string | null {
  const [first, second] = part;
  const isName = first?.kind === 'word' || first?.kind === 'name';
  const isCall = second?.kind === 'mark' && second.text === '(' && part[2]?.kind !== 'number';
  return isName && !isCall && !(second?.kind === 'mark' && second.text === '::') ? first.text : null;
}

function readEnumType(schema: SqlSchema, reader: SqlReader): StatementRead {
  const name = reader.name();
  if (name === null || !reader.take('AS', 'ENUM'))
    return unread('A model has no type of several parts; write it as a value.');
  const options = splitAtCommas(reader.parenthesised()).flatMap(([token]) =>
    token?.kind === 'string' ? [token.text] : [],
  );
  schema.addType(name, { kind: 'options', options });
  return READ;
}

/** `CREATE DOMAIN name AS type CHECK (VALUE …)`: the type of columns, with what is asked of each. */
function readDomain(schema: SqlSchema, reader: SqlReader): StatementRead {
  const { lines } = reader;
  const name = reader.name();
  if (name === null) return unread('It names no domain.');
  reader.take('AS');
  const column = newColumn('VALUE', lines);
  readColumnType(column, reader);
  const table = newTable(name, lines);
  readParts(table, column, reader);
  schema.addType(name, { kind: 'domain', column, checks: table.checks });
  return READ;
}

function readComment(schema: SqlSchema, reader: SqlReader): boolean {
  const onColumn = reader.take('COLUMN');
  // Of what a model does not have, no words are lost.
  if (!onColumn && !reader.take('TABLE')) return true;
  const path = [...reader.path()];
  const text = reader.take('IS') ? reader.next() : undefined;
  const column = onColumn ? path.pop() : undefined;
  const table = schema.table({ schema: path.at(-2) ?? null, name: path.at(-1) ?? '' });
  if (table === undefined || text === undefined) return false;
  const target = onColumn ? table.columns.find(({ name }) => same(name, column ?? '')) : table;
  if (target !== undefined) target.comment = commentIn(text);
  return target !== undefined;
}
