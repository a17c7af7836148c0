import type { Place } from './diagnostics.js';

export type Token = { readonly place: Place; readonly text: string } & (
  | { readonly kind: 'word' }
  | { readonly kind: 'number'; readonly value: number }
  | { readonly kind: 'string'; readonly value: string }
  | { readonly kind: 'mark' }
);

export interface TokenProblem {
  readonly code: 'token.unknown' | 'string.open';
  readonly place: Place;
  readonly text: string;
}

export interface TokenLine {
  readonly tokens: readonly Token[];
  readonly problems: readonly TokenProblem[];
  /** The text after `#`, or `null`. */
  readonly comment: string | null;
}

/** A word of the notation; also what a choice option may be without quotes. */
export const WORD = /^[A-Za-z_][A-Za-z0-9_]*(?:-[A-Za-z0-9_]+)*$/;

/** Words that would be read as something else where an option stands. */
const LITERALS: ReadonlySet<string> = new Set(['true', 'false']);

/** An option or a state as it is written: plain where it reads as a word, else quoted. */
export const writeOption = (text: string): string =>
  WORD.test(text) && !LITERALS.has(text) ? text : JSON.stringify(text);

const TOKEN =
  /(?<space>\s+)|(?<comment>#.*)|(?<word>[A-Za-z_][A-Za-z0-9_]*(?:-[A-Za-z0-9_]+)*)|(?<number>-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?)|(?<string>"(?:[^"\\]|\\.)*")|(?<mark>\.\.|->|<=|>=|!=|[:,()<>=])/y;

/** Splits one line into tokens. Characters it cannot read are reported and passed over. */
export function tokenize(source: string, line: number): TokenLine {
  const tokens: Token[] = [];
  const problems: TokenProblem[] = [];
  let comment: string | null = null;
  let index = 0;
  while (index < source.length) {
    TOKEN.lastIndex = index;
    const match = TOKEN.exec(source);
    if (match === null) {
      const open = source[index] === '"';
      const length = open ? source.length - index : 1;
      const text = source.slice(index, index + length);
      problems.push({
        code: open ? 'string.open' : 'token.unknown',
        place: { line, column: index + 1, length },
        text,
      });
      index += length;
      continue;
    }
    const text = match[0];
    const place = { line, column: index + 1, length: text.length };
    const groups = match.groups ?? {};
    if (groups['comment'] !== undefined) comment = text.slice(1).replace(/^ /, '').trimEnd();
    else if (groups['word'] !== undefined) tokens.push({ kind: 'word', text, place });
    else if (groups['number'] !== undefined)
      tokens.push({ kind: 'number', text, place, value: Number(text) });
    else if (groups['mark'] !== undefined) tokens.push({ kind: 'mark', text, place });
    else if (groups['string'] !== undefined) {
      const value = unescape(text);
      if (value === null) problems.push({ code: 'string.open', place, text });
      else tokens.push({ kind: 'string', text, place, value });
    }
    index += text.length;
  }
  return { tokens, problems, comment };
}

/** Reads a JSON string literal (RFC 8259 §7); `null` when an escape is wrong. */
function unescape(text: string): string | null {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'string' ? value : null;
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}
