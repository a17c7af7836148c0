import { readCheck } from './readCheck.js';
import { isNow, readDefault } from './readDefault.js';
import { commentIn, type SqlReader, splitAtCommas } from './reader.js';
import { readReference } from './readReference.js';
import { newColumn, type SqlColumn, type SqlTable } from './schema.js';

/** Reads a column with its type and everything behind it, and adds it to its table; `null` where none stands here. */
export function readColumn(table: SqlTable, reader: SqlReader): SqlColumn | null {
  const { lines } = reader;
  const name = reader.next();
  if (name?.kind !== 'word' && name?.kind !== 'name') return null;
  const column = newColumn(name.text, lines);
  table.columns.push(column);
  readColumnType(column, reader);
  readParts(table, column, reader);
  return column;
}

const TYPE_PARTS: ReadonlySet<string> = new Set([
  'VARYING',
  'PRECISION',
  'UNSIGNED',
  'SIGNED',
  'ZEROFILL',
  'WITH',
  'WITHOUT',
  'TIME',
  'ZONE',
  'LARGE',
  'OBJECT',
  'LOCAL',
]);

/** What stands in front of a type and says nothing more. */
const NATIONAL = ['NATIONAL', 'LONG'];

/** Reads the type that stands here into a column. */
export function readColumnType(column: SqlColumn, reader: SqlReader): void {
  const isPrefixed = NATIONAL.includes(reader.peek()?.word ?? '') && reader.peek(1)?.kind === 'word';
  if (isPrefixed) reader.next();
  const words: string[] = [reader.identifier() ?? ''];
  column.args = [];
  column.isArray = false;
  for (;;) {
    const word = reader.peek()?.word ?? '';
    if (reader.isMark('('))
      column.args = splitAtCommas(reader.parenthesised()).map((part) => part[0]?.text ?? '');
    else if (TYPE_PARTS.has(word)) words.push(reader.next()?.text ?? '');
    else if (reader.take('CHARACTER', 'SET') || reader.takeOne('CHARSET', 'COLLATE')) reader.identifier();
    else if (reader.takeOne('BINARY', 'ASCII', 'UNICODE')) continue;
    else if (reader.takeMark('[')) {
      while (!reader.done && !reader.takeMark(']')) reader.next();
      column.isArray = true;
    } else if (reader.take('ARRAY')) column.isArray = true;
    else break;
  }
  column.type = words.join(' ').toLowerCase();
  column.auto ||= /^(small|big)?serial[248]?$/.test(column.type);
}

/** Reads what stands behind the type of a column, to the end. */
export function readParts(table: SqlTable, column: SqlColumn, reader: SqlReader): void {
  let named: string | null = null;
  while (!reader.done) {
    if (reader.take('CONSTRAINT')) named = reader.identifier();
    else if (readPart(table, column, reader, named)) named = null;
    else reader.next();
  }
}

function readPart(table: SqlTable, column: SqlColumn, reader: SqlReader, name: string | null): boolean {
  const { lines } = column;
  if (reader.take('NOT', 'NULL')) column.notNull = true;
  else if (reader.take('PRIMARY', 'KEY')) table.primary = { name, columns: [column.name], lines };
  else if (reader.take('UNIQUE')) {
    reader.take('KEY');
    table.uniques.push({ name: name ?? column.name, columns: [column.name], lines });
  } else if (reader.takeOne('AUTO_INCREMENT', 'AUTOINCREMENT', 'IDENTITY')) {
    reader.parenthesised();
    column.auto = true;
  } else if (reader.take('GENERATED')) readGenerated(column, reader);
  else if (reader.take('AS')) column.computed = reader.parenthesised();
  else if (reader.take('DEFAULT')) readDefault(column, reader);
  else if (reader.take('ON', 'UPDATE')) column.onUpdateNow = isNow(reader.next());
  else if (reader.take('COMMENT')) column.comment = commentIn(reader.next());
  else if (reader.peek()?.word === 'CHECK') {
    const at = reader.linesTo(reader.peek());
    reader.next();
    table.checks.push(readCheck(reader.parenthesised(), at, name));
  } else {
    const reference = readReference(reader, [column.name], name);
    if (reference === null) return false;
    table.foreign.push(reference);
  }
  return true;
}

/** `GENERATED … AS IDENTITY` counts up; any other is computed. */
export function readGenerated(column: SqlColumn, reader: SqlReader): void {
  while (!reader.done && reader.peek()?.word !== 'AS') reader.next();
  reader.take('AS');
  if (reader.take('IDENTITY')) {
    reader.parenthesised();
    column.auto = true;
  } else column.computed = reader.parenthesised();
}
