import type { Cursor } from './listQuery.js';
import { base64urlnopad, utf8 } from '@scure/base';
import { bareObject, isJsonObject, readJson, type Json } from '../../model/index.js';
import { contractDigest, signatureOf } from '../digest.js';
import type { RequestContext } from '../service.js';
import type { ListQuery } from './listQuery.js';

/** What a cursor holds for and nothing else: the list, its order, and what narrows it. */
export function cursorScope(
  { contract }: RequestContext,
  path: string,
  { sort, filters, search }: Pick<ListQuery, 'sort' | 'filters' | 'search'>,
): string {
  return JSON.stringify([contractDigest(contract), path, sort, filters, search]);
}

/** Writes a cursor: its position as JSON and the signature of that and its scope, each in base64url. */
export function writeCursor(
  { secret }: RequestContext,
  scope: string,
  { direction, position }: Cursor,
): string {
  const content = JSON.stringify({ [direction]: [...position.values, position.rid] });
  return `${base64urlnopad.encode(utf8.decode(content))}.${signatureOf(secret, `${scope}\n${content}`)}`;
}

/** Reads a cursor; `null` where it was not written here for this scope. */
export function readCursor({ secret }: RequestContext, scope: string, text: string): Cursor | null {
  const [encoded = '', signature, ...more] = text.split('.');
  const content = decoded(encoded);
  if (content === null || more.length > 0) return null;
  if (signatureOf(secret, `${scope}\n${content}`) !== signature) return null;
  const read = readJson(content);
  const value = read.ok && isJsonObject(read.value) ? read.value : bareObject();
  const direction = 'after' in value ? 'after' : 'before';
  const values = value[direction];
  const all = Array.isArray(values) ? (values as readonly Json[]) : [];
  const rid = all.at(-1);
  return typeof rid === 'number' ? { direction, position: { values: all.slice(0, -1), rid } } : null;
}

function decoded(text: string): string | null {
  if (!/^[A-Za-z0-9_-]+$/.test(text)) return null;
  try {
    return utf8.encode(base64urlnopad.decode(text));
  } catch {
    // Not base64url, or not UTF-8: nothing this side has written.
    return null;
  }
}
