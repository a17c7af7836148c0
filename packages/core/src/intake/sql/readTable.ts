import { appendAll, replaceItems } from '../../model/index.js';
import { readCheck } from './readCheck.js';
import { readColumn } from './readColumn.js';
import { commentIn, SqlReader, splitAtCommas } from './reader.js';
import { readReference } from './readReference.js';
import {
  imposeNotNull,
  newTable,
  type SqlForeignKey,
  type SqlKey,
  type SqlSchema,
  type SqlTable,
} from './schema.js';

/** What became of a statement: read, or why it was not. */
export type StatementRead = { readonly ok: true } | { readonly ok: false; readonly why: string };

export const READ: StatementRead = { ok: true };

export const unread = (why: string): StatementRead => ({ ok: false, why });

/** Reads what stands behind CREATE TABLE. */
export function readCreateTable(schema: SqlSchema, reader: SqlReader): StatementRead {
  const { lines } = reader;
  reader.take('IF', 'NOT', 'EXISTS');
  const name = reader.name();
  if (name === null) return unread('It names no table.');
  if (reader.take('PARTITION', 'OF')) {
    const whole = reader.name();
    if (whole !== null) schema.addPart(name, whole);
    return unread(`It is a part of ${whole?.name ?? 'another table'}, which has its records.`);
  }
  const table = newTable(schema.placed(name), lines);
  if (reader.take('LIKE')) {
    const other = reader.name();
    const known = other === null ? undefined : schema.table(other);
    if (known === undefined) return unread(`There is no table ${other?.name ?? ''} that it is like.`);
    copyTable(known, table);
    schema.add(table);
    return READ;
  }
  if (!reader.isMark('(')) return unread('It declares no columns; what a query gives is not known here.');
  const others: string[] = [];
  for (const part of splitAtCommas(reader.parenthesised())) {
    const like = readTablePart(schema, table, new SqlReader(part));
    if (like !== null) others.push(like);
  }
  readTableOptions(schema, table, reader);
  imposeNotNull(table);
  schema.add(table);
  return others.length === 0 ? READ : unread(`There is no table ${others.join(', ')} that it is like.`);
}

/** Everything that a table declares, as another one's; what it refers to it keeps to itself. */
function copyTable(from: SqlTable, to: SqlTable): void {
  const key = (one: SqlKey): SqlKey => ({ ...one, lines: to.lines });
  appendAll(
    to.columns,
    from.columns.map((column) => ({ ...column, lines: to.lines })),
  );
  to.primary ??= from.primary === null ? null : key(from.primary);
  appendAll(to.uniques, from.uniques.map(key));
  copyChecks(from, to);
}

const copyChecks = (from: SqlTable, to: SqlTable): void =>
  appendAll(
    to.checks,
    from.checks.map((check) => ({ ...check, lines: to.lines })),
  );

/** What stands behind the columns: a comment, and the tables whose columns it has, too. */
function readTableOptions(schema: SqlSchema, table: SqlTable, reader: SqlReader): void {
  while (!reader.done) {
    if (reader.take('COMMENT')) {
      reader.takeMark('=');
      table.comment = commentIn(reader.next());
    } else if (reader.take('INHERITS')) {
      for (const part of splitAtCommas(reader.parenthesised())) {
        const parent = schema.table(new SqlReader(part).name() ?? { schema: null, name: '' });
        if (parent !== undefined) inherit(parent, table);
      }
    } else reader.next();
  }
}

/** The columns of a parent come first; keys and references are not handed down. */
function inherit(parent: SqlTable, table: SqlTable): void {
  const own = new Set(table.columns.map(({ name }) => name.toLowerCase()));
  const more = parent.columns.filter(({ name }) => !own.has(name.toLowerCase()));
  replaceItems(table.columns, [
    ...more.map((column) => ({ ...column, lines: table.lines })),
    ...table.columns,
  ]);
  copyChecks(parent, table);
  parent.heirs.push(table);
}

/** One column or one constraint of a table; the name of a table it is to be like and that is not there, or `null`. */
export function readTablePart(schema: SqlSchema, table: SqlTable, reader: SqlReader): string | null {
  const isNamed = reader.take('CONSTRAINT');
  const name = isNamed && !startsConstraint(reader) ? reader.identifier() : null;
  if (readConstraint(table, reader, name)) return null;
  if (reader.peek()?.word === 'LIKE' && reader.peek(1)?.kind !== 'mark' && !isType(reader)) {
    reader.next();
    const other = reader.name();
    const known = other === null ? undefined : schema.table(other);
    if (known === undefined) return other?.name ?? '';
    copyTable(known, table);
    return null;
  }
  readColumn(table, reader);
  return null;
}

/** A column may be called `like`; then its type stands behind it, and not INCLUDING or the end. */
const isType = (reader: SqlReader): boolean =>
  reader.peek(2) !== undefined &&
  !['INCLUDING', 'EXCLUDING'].includes(reader.peek(2)?.word ?? '') &&
  !reader.isMark('.', 2);

const CONSTRAINTS: ReadonlySet<string> = new Set([
  'PRIMARY',
  'UNIQUE',
  'FOREIGN',
  'CHECK',
  'KEY',
  'INDEX',
  'FULLTEXT',
  'SPATIAL',
  'EXCLUDE',
]);
const startsConstraint = (reader: SqlReader): boolean => CONSTRAINTS.has(reader.peek()?.word ?? '');

/** Reads a constraint and adds it to its table; `false` where a column stands here. */
function readConstraint(table: SqlTable, reader: SqlReader, name: string | null): boolean {
  const { lines } = reader;
  if (reader.take('PRIMARY', 'KEY')) {
    passUsing(reader);
    table.primary = { name, columns: reader.names(), lines };
    return true;
  }
  if (reader.peek()?.word === 'UNIQUE' && !isColumnCalled(reader)) {
    reader.next();
    if (!reader.take('KEY')) reader.take('INDEX');
    reader.take('NULLS', 'NOT', 'DISTINCT');
    const called = reader.isMark('(') || reader.peek()?.word === 'USING' ? null : reader.identifier();
    passUsing(reader);
    const columns = reader.names();
    table.uniques.push({ name: name ?? called ?? columns[0] ?? null, columns, lines });
    return true;
  }
  if (reader.take('FOREIGN', 'KEY')) {
    reader.take('IF', 'NOT', 'EXISTS');
    const called = reader.isMark('(') ? null : reader.identifier();
    const reference = readReference(reader, reader.names(), name ?? called);
    if (reference !== null) addForeign(table, { ...reference, lines });
    return true;
  }
  if (reader.peek()?.word === 'CHECK' && reader.isMark('(', 1)) {
    reader.next();
    table.checks.push(readCheck(reader.parenthesised(), lines, name));
    return true;
  }
  return isIndex(reader);
}

/** A reference that was declared at its column, too, is one. */
function addForeign(table: SqlTable, added: SqlForeignKey): void {
  const key = ({ columns, table: { name } }: SqlForeignKey): string =>
    `${columns.join()} ${name}`.toLowerCase();
  if (!table.foreign.some((one) => key(one) === key(added))) table.foreign.push(added);
}

/** `USING BTREE` says how an index is kept. */
export function passUsing(reader: SqlReader): void {
  if (reader.take('USING')) reader.next();
}

/** `unique varchar(9)` declares a column of that name. */
const isColumnCalled = (reader: SqlReader): boolean =>
  reader.peek(1)?.kind === 'word' &&
  !['KEY', 'INDEX', 'USING', 'NULLS'].includes(reader.peek(1)?.word ?? '') &&
  !reader.isMark('(', 2);

/** `KEY name (column)` is an index; a column may be called key all the same. */
function isIndex(reader: SqlReader): boolean {
  const word = reader.peek()?.word ?? '';
  if (['FULLTEXT', 'SPATIAL'].includes(word)) return true;
  if (!['KEY', 'INDEX', 'EXCLUDE'].includes(word)) return false;
  const isNamed = reader.isMark('(', 2) || reader.peek(2)?.word === 'USING';
  return reader.isMark('(', 1) || reader.peek(1)?.word === 'USING' || (isNamed && !isTypeWithSize(reader));
}

/** `key varchar(9)` declares a column: its name is followed by a type and a number. */
const isTypeWithSize = (reader: SqlReader): boolean =>
  reader.isMark('(', 2) && reader.peek(3)?.kind === 'number';
