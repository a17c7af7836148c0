import { base64, hex, utf8 } from '@scure/base';
import { readJson, type Json } from '../../model/index.js';
import type { SqlBytes, SqlCell, SqlColumn } from './schema.js';

/** What a cell of a column says: texts for what a scalar type reads, JSON where the column holds that. */
export type ColumnValue =
  | { readonly kind: 'value'; readonly value: Json }
  /** What the database would make, or has by default. */
  | { readonly kind: 'left' }
  | { readonly kind: 'unread' };

const LEFT: ColumnValue = { kind: 'left' };
const UNREAD: ColumnValue = { kind: 'unread' };
const value = (given: Json): ColumnValue => ({ kind: 'value', value: given });

/** `now`: milliseconds since 1970 that the time is taken from; `null` where it is not known. */
export function columnValue(column: SqlColumn, cell: SqlCell, now: number | null): ColumnValue {
  if (cell === null) return value(null);
  if (typeof cell === 'string') return textValue(column, cell);
  switch (cell.kind) {
    case 'bytes':
      return bytesValue(column, cell);
    case 'now':
      return now === null ? LEFT : value(timeOf(column, now));
    case 'default':
    case 'uuid':
      return LEFT;
    case 'other':
      return UNREAD;
  }
}

const timeOf = ({ type }: SqlColumn, now: number): string => {
  const at = new Date(now).toISOString();
  if (type === 'date') return at.slice(0, 10);
  return type.startsWith('time') && !type.startsWith('timestamp') ? at.slice(11, 19) : at;
};

const JSONS: ReadonlySet<string> = new Set(['json', 'jsonb']);
const BYTES = /blob$|binary$|^bytea$|^image$/;

function textValue({ type, isArray }: SqlColumn, text: string): ColumnValue {
  if (isArray) {
    const list = arrayValue(text);
    return list === null ? UNREAD : value(list);
  }
  if (type === 'set') return value(text === '' ? [] : text.split(','));
  if (type === 'hstore') return hstoreValue(text);
  if (JSONS.has(type)) {
    const read = readJson(text, { rounded: true });
    return read.ok ? value(read.value) : UNREAD;
  }
  if (!BYTES.test(type)) return value(text);
  return value(
    base64.encode(/^\\x(?:[0-9a-f]{2})*$/i.test(text) ? bytesIn(text.slice(2)) : utf8.decode(text)),
  );
}

function bytesValue({ type }: SqlColumn, { digits }: SqlBytes): ColumnValue {
  if (!/^[0-9a-f]*$/i.test(digits)) return UNREAD;
  const bytes = bytesIn(digits);
  if (BYTES.test(type)) return value(base64.encode(bytes));
  // Of a number its digits count, of a text its characters.
  return value(/int|decimal|bool|bit/.test(type) ? String(parseInt(digits, 16)) : fromUtf8(bytes));
}

/** Elements between braces (PostgreSQL, Array Input and Output Syntax), those of one dimension; else `null`. */
export function arrayValue(text: string): readonly Json[] | null {
  if (!text.startsWith('{') || !text.endsWith('}')) return null;
  const inside = text.slice(1, -1);
  if (inside.trim() === '') return [];
  const element = /\s*(?:"((?:[^"\\]|\\[^])*)"|([^",{}\\]*))\s*(,|$)/y;
  const items: Json[] = [];
  for (;;) {
    const found = element.exec(inside);
    if (found === null) return null;
    const [, quoted, plain = '', end] = found;
    const item = plain.trim();
    items.push(
      quoted === undefined ? (/^null$/i.test(item) ? null : item) : quoted.replace(/\\([^])/g, '$1'),
    );
    if (end === '') return element.lastIndex === inside.length ? items : null;
  }
}

/** `"name"=>"Kestrel", "open"=>NULL` */
function hstoreValue(text: string): ColumnValue {
  const json = `{${text.replace(/("(?:[^"\\]|\\[^])*")\s*=>\s*("(?:[^"\\]|\\[^])*"|NULL)/gi, (_, key: string, of: string) => `${key}:${/^null$/i.test(of) ? 'null' : of}`)}}`;
  const read = readJson(json);
  return read.ok ? value(read.value) : UNREAD;
}

/** Bytes of hexadecimal digits, of which the first may stand alone. */
const bytesIn = (digits: string): Uint8Array =>
  hex.decode((digits.length % 2 === 0 ? digits : `0${digits}`).toLowerCase());

/** The text that bytes are in UTF-8; where they are none, one character for each. */
function fromUtf8(bytes: Uint8Array): string {
  try {
    return utf8.encode(bytes);
  } catch {
    return [...bytes].map((byte) => String.fromCharCode(byte)).join('');
  }
}
