import type { EngineRequest } from './message.js';

/** What conditions are asked about: the state of the target as it is now. */
export interface Current {
  readonly exists: boolean;
  /** Whether an entity tag, with its quotes, is valid for the target now. */
  readonly hasTag: (tag: string) => boolean;
  /** When it was changed last, in milliseconds since 1970, to the second; `null` where nobody keeps that. */
  readonly modified: number | null;
}

export type Verdict =
  | { readonly kind: 'go' }
  | { readonly kind: 'not-modified' }
  | { readonly kind: 'failed'; readonly detail: string };

const GO: Verdict = { kind: 'go' };

export const CONDITIONS = ['if-match', 'if-none-match', 'if-unmodified-since', 'if-modified-since'] as const;

export const hasConditions = ({ headers }: EngineRequest): boolean =>
  CONDITIONS.some((name) => headers.has(name));

/** Evaluates the preconditions of a request in the order of RFC 9110 §13.2.2. */
export function evaluate({ method, headers }: EngineRequest, current: Current): Verdict {
  const isRead = method === 'GET' || method === 'HEAD';
  const match = headers.get('if-match');
  const unmodified = dateOf(headers.get('if-unmodified-since'));
  if (match !== undefined) {
    if (!matches(match, current, true))
      return { kind: 'failed', detail: 'If-Match names no state that the target has now.' };
  } else if (unmodified !== null && current.modified !== null && current.modified > unmodified) {
    return { kind: 'failed', detail: 'The target was changed after the date in If-Unmodified-Since.' };
  }
  const noneMatch = headers.get('if-none-match');
  if (noneMatch !== undefined) {
    if (!matches(noneMatch, current, false)) return GO;
    if (isRead) return { kind: 'not-modified' };
    const detail =
      noneMatch.trim() === '*'
        ? 'If-None-Match asks for something that is not there; it is.'
        : 'If-None-Match names the state that the target has.';
    return { kind: 'failed', detail };
  }
  const since = dateOf(headers.get('if-modified-since'));
  const isOld = isRead && since !== null && current.modified !== null && current.modified <= since;
  return isOld ? { kind: 'not-modified' } : GO;
}

/** An entity tag (RFC 9110 §8.8.3). */
const TAG = /(W\/)?("[\x21\x23-\x7e\x80-\u{10ffff}]*")/gu;

/** Whether one of the tags is that of the target. Weak tags never are where the comparison is strong. */
function matches(header: string, { exists, hasTag }: Current, isStrong: boolean): boolean {
  if (!exists) return false;
  if (header.trim() === '*') return true;
  for (const [, weak, tag = ''] of header.matchAll(TAG))
    if (!(isStrong && weak !== undefined) && hasTag(tag)) return true;
  return false;
}

/** An HTTP date in any of its three forms (RFC 9110 §5.6.7), in milliseconds; `null` for anything else. */
function dateOf(text: string | undefined): number | null {
  if (text === undefined || !/^[A-Z][a-z]{2,8},? /.test(text)) return null;
  const time = Date.parse(text.endsWith('GMT') ? text : `${text} GMT`);
  return Number.isNaN(time) ? null : time;
}

/** A moment as HTTP writes it (IMF-fixdate). */
export const httpDate = (milliseconds: number): string => new Date(milliseconds).toUTCString();
