import { readCheck } from './readCheck.js';
import { type SqlReader, splitAtCommas, textOf } from './reader.js';
import { readReference } from './readReference.js';
import type { SqlColumn, SqlDefault, SqlTable } from './schema.js';
import type { SqlToken } from './tokens.js';

/** Reads a column with its type and everything behind it, and adds it to its table. */
export function readColumn(table: SqlTable, reader: SqlReader): void {
  const { lines } = reader;
  const name = reader.next();
  if (name?.kind !== 'word' && name?.kind !== 'name') return;
  const column: SqlColumn = {
    name: name.text,
    lines,
    type: '',
    args: [],
    isArray: false,
    notNull: false,
    auto: false,
    default: null,
    onUpdateNow: false,
    comment: null,
    computed: null,
  };
  table.columns.push(column);
  readType(column, reader);
  while (!reader.done) if (!readPart(table, column, reader)) reader.next();
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
]);

function readType(column: SqlColumn, reader: SqlReader): void {
  const words: string[] = [reader.identifier() ?? ''];
  for (;;) {
    const word = reader.peek()?.word ?? '';
    if (reader.peek()?.text === '(')
      column.args = splitAtCommas(reader.parenthesised()).map((part) => part[0]?.text ?? '');
    else if (TYPE_PARTS.has(word)) words.push(reader.next()?.text ?? '');
    else if (reader.take('CHARACTER', 'SET') || reader.take('COLLATE')) reader.next();
    else if (reader.takeMark('[')) {
      while (!reader.done && !reader.takeMark(']')) reader.next();
      column.isArray = true;
    } else if (reader.peek()?.kind === 'name' && reader.peek()?.text === '') {
      reader.next();
      column.isArray = true;
    } else break;
  }
  column.type = words.join(' ').toLowerCase();
}

function readPart(table: SqlTable, column: SqlColumn, reader: SqlReader): boolean {
  if (reader.take('NOT', 'NULL')) column.notNull = true;
  else if (reader.take('PRIMARY', 'KEY')) table.primary = [column.name];
  else if (reader.take('UNIQUE')) {
    reader.take('KEY');
    table.uniques.push([column.name]);
  } else if (reader.take('AUTO_INCREMENT')) column.auto = true;
  else if (reader.take('GENERATED')) readGenerated(column, reader);
  else if (reader.take('AS')) column.computed = reader.parenthesised();
  else if (reader.take('DEFAULT')) column.default = readDefault(reader);
  else if (reader.take('ON', 'UPDATE')) column.onUpdateNow = isNow(reader.next());
  else if (reader.take('COMMENT')) column.comment = reader.next()?.text ?? null;
  else if (reader.peek()?.word === 'CHECK') {
    const { lines } = reader;
    reader.next();
    table.checks.push(readCheck(reader.parenthesised(), lines));
  } else {
    const reference = readReference(reader, [column.name]);
    if (reference === null) return false;
    table.foreign.push(reference);
  }
  return true;
}

/** `GENERATED … AS IDENTITY` counts up; any other is computed. */
function readGenerated(column: SqlColumn, reader: SqlReader): void {
  while (!reader.done && reader.peek()?.word !== 'AS') reader.next();
  reader.take('AS');
  if (reader.take('IDENTITY')) column.auto = true;
  else column.computed = reader.parenthesised();
}

const NOW: ReadonlySet<string> = new Set([
  'CURRENT_TIMESTAMP',
  'NOW',
  'CURRENT_DATE',
  'LOCALTIMESTAMP',
  'SYSDATE',
]);
const isNow = (token: SqlToken | undefined): boolean => NOW.has(token?.word ?? '');

function readDefault(reader: SqlReader): SqlDefault | null {
  const negative = reader.takeMark('-');
  const token = reader.next();
  if (token === undefined || token.word === 'NULL') return null;
  if (isNow(token)) {
    reader.parenthesised();
    return { kind: 'now' };
  }
  if (token.kind === 'string') return { kind: 'literal', value: token.text };
  if (token.kind === 'number')
    return { kind: 'literal', value: negative ? -Number(token.text) : Number(token.text) };
  if (token.word === 'TRUE' || token.word === 'FALSE')
    return { kind: 'literal', value: token.word === 'TRUE' };
  const args = reader.peek()?.text === '(' ? `(${textOf(reader.parenthesised())})` : '';
  const isUuid = /^(uuid|gen_random_uuid|uuid_generate_v4)$/i.test(token.text);
  return isUuid ? { kind: 'uuid' } : { kind: 'other', text: token.text + args };
}
