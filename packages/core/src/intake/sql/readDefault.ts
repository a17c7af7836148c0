import { SqlReader, splitAtCommas, textOf } from './reader.js';
import type { SqlColumn, SqlDefault } from './schema.js';
import type { SqlToken } from './tokens.js';

const NOW: ReadonlySet<string> = new Set([
  'CURRENT_TIMESTAMP',
  'NOW',
  'CURRENT_DATE',
  'CURRENT_TIME',
  'LOCALTIMESTAMP',
  'LOCALTIME',
  'SYSDATE',
  'UTC_TIMESTAMP',
  'STATEMENT_TIMESTAMP',
  'TRANSACTION_TIMESTAMP',
  'CLOCK_TIMESTAMP',
]);

export const isNow = (token: SqlToken | undefined): boolean => NOW.has(token?.word ?? '');

const UUIDS = /^(uuid|gen_random_uuid|uuid_generate_v[1-7]|uuidv[47]|newid)$/i;

/** What begins the next part of a column, outside parentheses. */
const PARTS: ReadonlySet<string> = new Set([
  'NOT',
  'NULL',
  'PRIMARY',
  'UNIQUE',
  'KEY',
  'REFERENCES',
  'CHECK',
  'COMMENT',
  'ON',
  'GENERATED',
  'AUTO_INCREMENT',
  'CONSTRAINT',
  'COLLATE',
  'INVISIBLE',
  'VISIBLE',
  'STORAGE',
  'COLUMN_FORMAT',
  'DEFERRABLE',
  'INITIALLY',
  'AFTER',
  'FIRST',
]);

/** Reads what stands behind DEFAULT: a counted column, or a value. */
export function readDefault(column: SqlColumn, reader: SqlReader): void {
  const tokens: SqlToken[] = [];
  for (let depth = 0; !reader.done;) {
    const token = reader.peek();
    if (token === undefined || (depth === 0 && tokens.length > 0 && PARTS.has(token.word))) break;
    if (token.kind === 'mark' && token.text === '(') depth++;
    if (token.kind === 'mark' && token.text === ')') depth--;
    tokens.push(token);
    reader.next();
  }
  const isCounted = tokens.some(({ kind, text }) => kind === 'word' && /^nextval$/i.test(text));
  column.auto ||= isCounted;
  column.default = isCounted ? null : writtenValue(tokens);
}

/** So many parentheses may stand around a value. */
const DEEPEST = 20;

/** The value that tokens write, without casts and parentheses; `null` where it is NULL. */
export function writtenValue(tokens: readonly SqlToken[], left = DEEPEST): SqlDefault | null {
  const other: SqlDefault = { kind: 'other', text: textOf(tokens) };
  const plain = withoutCast(tokens);
  const reader = new SqlReader(plain);
  if (reader.isMark('(')) {
    const inside = reader.parenthesised();
    return reader.done && left > 0 ? writtenValue(inside, left - 1) : other;
  }
  const isNegative = reader.takeMark('-');
  if (!isNegative) reader.takeMark('+');
  const token = reader.next();
  if (token === undefined || token.word === 'NULL') return null;
  // A time in another zone is the same moment.
  if (isNow(token) || (token.word === 'TIMEZONE' && plain.some(isNow))) return { kind: 'now' };
  if (token.kind === 'word' && UUIDS.test(token.text)) return { kind: 'uuid' };
  if (token.word === 'CAST' && reader.isMark('(')) {
    const inside = reader.parenthesised();
    const as = inside.findIndex(({ word }) => word === 'AS');
    return reader.done && left > 0
      ? writtenValue(inside.slice(0, as === -1 ? undefined : as), left - 1)
      : other;
  }
  if (token.word === 'ARRAY' && reader.isMark('[')) return arrayOf(reader, left) ?? other;
  if (!reader.done) return other;
  if (token.kind === 'string') return { kind: 'literal', value: token.text };
  if (token.kind === 'number') return { kind: 'literal', value: (isNegative ? -1 : 1) * Number(token.text) };
  if (token.word === 'TRUE' || token.word === 'FALSE')
    return { kind: 'literal', value: token.word === 'TRUE' };
  return other;
}

/** `ARRAY['fuel', 'water']` as the text that says the same; `null` where something in it is no literal. */
function arrayOf(reader: SqlReader, left: number): SqlDefault | null {
  const tokens = reader.rest();
  if (tokens.at(-1)?.text !== ']' || left === 0) return null;
  const items = splitAtCommas(tokens.slice(1, -1)).map((part) => writtenValue(part, left - 1));
  if (items.some((item) => item !== null && item.kind !== 'literal')) return null;
  const texts = items.map((item) => (item?.kind === 'literal' ? JSON.stringify(String(item.value)) : 'NULL'));
  return { kind: 'literal', value: `{${texts.join()}}` };
}

/** A value without the type it is cast to, which is the type of its column. */
function withoutCast(tokens: readonly SqlToken[]): readonly SqlToken[] {
  let depth = 0;
  for (const [at, { kind, text }] of tokens.entries()) {
    if (kind !== 'mark') continue;
    if (text === '(') depth++;
    else if (text === ')') depth--;
    else if (text === '::' && depth === 0) return tokens.slice(0, at);
  }
  return tokens;
}
