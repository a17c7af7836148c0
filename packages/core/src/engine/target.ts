import { utf8Length } from '../model/index.js';
import type { Problem } from './message.js';
import { problem } from './problem.js';

/** The longest request target that is read, in bytes. */
export const MAX_TARGET_BYTES = 8_192;

export interface Target {
  /** Percent-decoded once each; without the empty ones at both ends. */
  readonly segments: readonly string[];
  /** The segments as one text. */
  readonly path: string;
  /** The raw text after `?`, or the empty text. */
  readonly query: string;
  /** Whether the path ended in a slash that means nothing by itself. */
  readonly trailingSlash: boolean;
}

export type TargetResult =
  { readonly ok: true; readonly target: Target } | { readonly ok: false; readonly problem: Problem };

/** Splits an origin-form target. Dot-segments are removed (RFC 3986 §5.2.4), also percent-encoded ones. */
export function readTarget(text: string): TargetResult {
  const bytes = utf8Length(text);
  if (bytes > MAX_TARGET_BYTES) {
    const detail = `The target has ${bytes} bytes; the limit is ${MAX_TARGET_BYTES}.`;
    return { ok: false, problem: problem(414, 'target-too-long', detail) };
  }
  const mark = text.indexOf('?');
  const path = mark === -1 ? text : text.slice(0, mark);
  const query = mark === -1 ? '' : text.slice(mark + 1);
  if (!path.startsWith('/')) return bad('The target is not a path that begins with a slash.');
  const raw = path.slice(1).split('/');
  if (!path.includes('%') && !path.includes('/.')) return plainTarget(path, raw, query);
  const segments: string[] = [];
  for (const [index, part] of raw.entries()) {
    const decoded = decode(part);
    if (decoded === null) return bad(`The segment ${part.slice(0, 80)} is not percent-encoded UTF-8.`);
    const last = index === raw.length - 1;
    if (isDot(part, 1)) continue;
    if (isDot(part, 2)) segments.pop();
    else if (decoded !== '' || !last) segments.push(decoded);
  }
  const trailingSlash = raw.length > 1 && raw.at(-1) === '';
  return { ok: true, target: { segments, path: `/${segments.join('/')}`, query, trailingSlash } };
}

/** A path that is read as it stands. */
function plainTarget(path: string, raw: string[], query: string): TargetResult {
  if (raw.at(-1) !== '') return { ok: true, target: { segments: raw, path, query, trailingSlash: false } };
  raw.pop();
  const trailingSlash = raw.length > 0;
  return {
    ok: true,
    target: { segments: raw, path: trailingSlash ? path.slice(0, -1) : path, query, trailingSlash },
  };
}

const bad = (detail: string): TargetResult => ({ ok: false, problem: problem(400, 'bad-target', detail) });

const isDot = (raw: string, dots: number): boolean =>
  (raw.startsWith('.') || raw.startsWith('%')) && raw.replace(/%2e/gi, '.') === '.'.repeat(dots);

/** Percent-decodes one part as UTF-8; `null` when it is not. */
export function decode(part: string): string | null {
  if (!part.includes('%')) return part;
  try {
    return decodeURIComponent(part);
  } catch (error) {
    if (error instanceof URIError) return null;
    throw error;
  }
}

/** A query parameter, decoded; `raw` is its value before that. */
export type QueryEntry = { readonly name: string; readonly value: string; readonly raw: string };

/** Splits a query into decoded pairs, `+` as space; `null` for the raw text that is not UTF-8. */
export function readQuery(query: string): { entries: QueryEntry[]; unreadable: string[] } {
  const entries: QueryEntry[] = [];
  const unreadable: string[] = [];
  for (const pair of query.split('&')) {
    if (pair === '') continue;
    const equals = pair.indexOf('=');
    const [rawName, rawValue] = equals === -1 ? [pair, ''] : [pair.slice(0, equals), pair.slice(equals + 1)];
    const [name, value] = [decode(rawName.replaceAll('+', ' ')), decode(rawValue.replaceAll('+', ' '))];
    if (name === null || value === null) unreadable.push(pair);
    else entries.push({ name, value, raw: rawValue });
  }
  return { entries, unreadable };
}
