import { readReference } from './readReference.js';
import type { IntakeProgress, Report } from '../report.js';
import { readColumn } from './readColumn.js';
import { readCheck } from './readCheck.js';
import { SqlReader, splitAtCommas, textOf } from './reader.js';
import type { SqlSchema, SqlTable } from './schema.js';
import { splitStatements, tokenizeSql, type SqlToken } from './tokens.js';

/** Reads what DDL declares. Statements that declare nothing of a model are noted and left out. */
export function readSqlSchema(source: string, report: Report, progress: IntakeProgress): SqlSchema {
  const schema: SqlSchema = { tables: new Map(), enums: new Map() };
  const statements = splitStatements(tokenizeSql(source));
  statements.forEach((tokens, index) => {
    progress(index / statements.length);
    const reader = new SqlReader(tokens);
    if (!readStatement(schema, reader))
      report.leave(reader.lines, textOf(tokens.slice(0, 16)), whyNot(tokens));
  });
  for (const table of schema.tables.values()) sortForeign(table);
  return schema;
}

/** Foreign keys in the order of their columns, wherever they were declared: cycles and dumps add theirs last. */
function sortForeign({ columns, foreign }: SqlTable): void {
  const positions = new Map(columns.map(({ name }, at) => [name.toLowerCase(), at]));
  const position = (name = ''): number => positions.get(name.toLowerCase()) ?? columns.length;
  foreign.sort((one, other) => position(one.columns[0]) - position(other.columns[0]));
}

/** Why a statement has no place in a model. */
function whyNot(tokens: readonly SqlToken[]): string {
  const words = new Set(tokens.slice(0, 6).map(({ word }) => word));
  if (words.has('VIEW')) return 'A view holds nothing of its own.';
  if (words.has('INSERT')) return 'Records are not part of a model.';
  if (words.has('TRIGGER') || words.has('FUNCTION') || words.has('PROCEDURE'))
    return 'A model has no code; say what it does in your own server.';
  return 'It declares no table, column or key.';
}

function readStatement(schema: SqlSchema, reader: SqlReader): boolean {
  if (reader.take('CREATE')) return readCreate(schema, reader);
  if (reader.take('ALTER', 'TABLE')) return readAlter(schema, reader);
  if (reader.take('COMMENT', 'ON')) return readComment(schema, reader);
  return isHarmless(reader);
}

/** What dumps hold besides declarations; nothing is lost by passing over it. */
const HARMLESS: ReadonlySet<string> = new Set([
  'SET',
  'USE',
  'BEGIN',
  'COMMIT',
  'START',
  'LOCK',
  'UNLOCK',
  'DROP',
  'GRANT',
]);
const isHarmless = (reader: SqlReader): boolean => HARMLESS.has(reader.peek()?.word ?? '');

function readCreate(schema: SqlSchema, reader: SqlReader): boolean {
  reader.take('OR', 'REPLACE');
  if (reader.take('TEMPORARY')) return false;
  if (reader.take('TABLE')) return readCreateTable(schema, reader);
  if (reader.take('UNIQUE', 'INDEX')) return readUniqueIndex(schema, reader);
  if (reader.take('TYPE')) return readEnumType(schema, reader);
  return ['INDEX', 'SCHEMA', 'DATABASE', 'EXTENSION', 'SEQUENCE'].includes(reader.peek()?.word ?? '');
}

const tableKey = (name: string): string => name.toLowerCase();

export const tableNamed = (schema: SqlSchema, name: string): SqlTable | undefined =>
  schema.tables.get(tableKey(name));

function readCreateTable(schema: SqlSchema, reader: SqlReader): boolean {
  const { lines } = reader;
  reader.take('IF', 'NOT', 'EXISTS');
  const name = reader.identifier();
  if (name === null || reader.peek()?.text !== '(') return false;
  const table: SqlTable = {
    name,
    lines,
    comment: null,
    columns: [],
    primary: [],
    uniques: [],
    foreign: [],
    checks: [],
  };
  schema.tables.set(tableKey(name), table);
  for (const part of splitAtCommas(reader.parenthesised())) readTablePart(table, new SqlReader(part));
  table.comment = tableComment(reader);
  return true;
}

/** `COMMENT = 'text'` among the options behind a table. */
function tableComment(reader: SqlReader): string | null {
  while (!reader.done) {
    if (reader.take('COMMENT')) {
      reader.takeMark('=');
      const token = reader.next();
      return token?.kind === 'string' ? token.text : null;
    }
    reader.next();
  }
  return null;
}

/** One column or one constraint of a table. */
function readTablePart(table: SqlTable, reader: SqlReader): void {
  if (reader.take('CONSTRAINT') && !startsConstraint(reader)) reader.identifier();
  if (readConstraint(table, reader)) return;
  readColumn(table, reader);
}

const CONSTRAINTS: ReadonlySet<string> = new Set([
  'PRIMARY',
  'UNIQUE',
  'FOREIGN',
  'CHECK',
  'KEY',
  'INDEX',
  'FULLTEXT',
  'EXCLUDE',
]);
const startsConstraint = (reader: SqlReader): boolean => CONSTRAINTS.has(reader.peek()?.word ?? '');

function readConstraint(table: SqlTable, reader: SqlReader): boolean {
  if (reader.take('PRIMARY', 'KEY')) {
    table.primary = reader.names();
    return true;
  }
  if (reader.peek()?.word === 'UNIQUE') {
    reader.next();
    if (!reader.take('KEY')) reader.take('INDEX');
    if (reader.peek()?.text !== '(') reader.identifier();
    table.uniques.push(reader.names());
    return true;
  }
  if (reader.take('FOREIGN', 'KEY')) {
    if (reader.peek()?.text !== '(') reader.identifier();
    const columns = reader.names();
    const reference = readReference(reader, columns);
    if (reference !== null) table.foreign.push(reference);
    return true;
  }
  if (reader.peek()?.word === 'CHECK') {
    const { lines } = reader;
    reader.next();
    table.checks.push(readCheck(reader.parenthesised(), lines));
    return true;
  }
  return (
    ['KEY', 'INDEX', 'FULLTEXT', 'EXCLUDE'].includes(reader.peek()?.word ?? '') &&
    reader.peek(1)?.text !== undefined &&
    isIndex(reader)
  );
}

/** `KEY name (column)` is an index; a column may be called key all the same. */
const isIndex = (reader: SqlReader): boolean =>
  reader.peek(1)?.text === '(' || reader.peek(2)?.text === '(' || reader.peek()?.word === 'FULLTEXT';

function readAlter(schema: SqlSchema, reader: SqlReader): boolean {
  reader.take('ONLY');
  reader.take('IF', 'EXISTS');
  const name = reader.identifier();
  const table = name === null ? undefined : tableNamed(schema, name);
  if (table === undefined) return false;
  const rest: SqlToken[] = [];
  for (let token = reader.next(); token !== undefined; token = reader.next()) rest.push(token);
  return splitAtCommas(rest).every((part) => readAlteration(table, new SqlReader(part)));
}

function readAlteration(table: SqlTable, reader: SqlReader): boolean {
  if (!reader.take('ADD')) return ['ALTER', 'OWNER', 'ENABLE'].includes(reader.peek()?.word ?? '');
  reader.take('COLUMN');
  reader.take('IF', 'NOT', 'EXISTS');
  readTablePart(table, reader);
  return true;
}

function readUniqueIndex(schema: SqlSchema, reader: SqlReader): boolean {
  reader.take('IF', 'NOT', 'EXISTS');
  if (!reader.take('ON')) {
    reader.identifier();
    reader.take('ON');
  }
  reader.take('ONLY');
  const table = tableNamed(schema, reader.identifier() ?? '');
  if (reader.take('USING')) reader.next();
  if (table === undefined) return false;
  table.uniques.push(reader.names());
  return true;
}

function readEnumType(schema: SqlSchema, reader: SqlReader): boolean {
  const name = reader.identifier();
  if (name === null || !reader.take('AS', 'ENUM')) return false;
  const options = splitAtCommas(reader.parenthesised()).flatMap(([token]) =>
    token?.kind === 'string' ? [token.text] : [],
  );
  schema.enums.set(name.toLowerCase(), options);
  return true;
}

function readComment(schema: SqlSchema, reader: SqlReader): boolean {
  const onColumn = reader.take('COLUMN');
  if (!onColumn && !reader.take('TABLE')) return false;
  const path: string[] = [];
  do {
    const token = reader.next();
    if (token !== undefined) path.push(token.text);
  } while (reader.takeMark('.'));
  const text = reader.take('IS') ? reader.next() : undefined;
  const column = onColumn ? path.pop() : undefined;
  const table = tableNamed(schema, path.at(-1) ?? '');
  if (table === undefined || text?.kind !== 'string') return false;
  const target = onColumn
    ? table.columns.find(({ name }) => name.toLowerCase() === column?.toLowerCase())
    : table;
  if (target !== undefined) target.comment = text.text;
  return target !== undefined;
}
