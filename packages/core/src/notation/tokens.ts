import { MAX_JSON_DEPTH, quotedEnd, readJson, type Json } from '../model/index.js';
import type { Fix, TextRange } from './diagnostics.js';
import { MODEL_LIMITS } from './modelLimits.js';

export type Token = { readonly place: TextRange; readonly text: string } & (
  | { readonly kind: 'word' }
  | { readonly kind: 'number'; readonly value: number }
  | { readonly kind: 'string'; readonly value: string }
  /** An array or an object. */
  | { readonly kind: 'json'; readonly value: Json }
  | { readonly kind: 'mark' }
);

export interface TokenProblem {
  readonly code: 'token.unknown' | 'string.open' | 'name.length';
  readonly message: string;
  readonly place: TextRange;
  readonly fixes: readonly Fix[];
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
  WORD.test(text) && text.length <= MODEL_LIMITS.nameLength && !LITERALS.has(text)
    ? text
    : JSON.stringify(text);

/** Words that would be read as something else where a literal stands. */
export const RESERVED_OPERANDS: ReadonlySet<string> = new Set(['now', 'true', 'false', 'and', 'or']);

/** A literal as a comparison writes it. */
export const writeOperand = (value: string | number | boolean): string =>
  typeof value !== 'string' || (WORD.test(value) && !RESERVED_OPERANDS.has(value))
    ? String(value)
    : JSON.stringify(value);

/** Space, a comment, a word, a number or a mark; its first character says which. */
const TOKEN =
  /\s+|#.*|[A-Za-z_][A-Za-z0-9_]*(?:-[A-Za-z0-9_]+)*|-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?|\.\.|->|<=|>=|!=|[:,()<>=+*/&]|\.(?![.\d])|-(?=\s|$)/y;

type Lexeme = Exclude<Token['kind'], 'json'> | 'space' | 'comment';

function lexemeOf(text: string): Lexeme {
  const first = text.charCodeAt(0);
  if (first === 0x23) return 'comment';
  if (first === 0x22) return 'string';
  if ((first >= 0x61 && first <= 0x7a) || (first >= 0x41 && first <= 0x5a) || first === 0x5f) return 'word';
  if (first >= 0x30 && first <= 0x39) return 'number';
  if (first === 0x2d) return text === '->' || text === '-' ? 'mark' : 'number';
  return text.trim() === '' ? 'space' : 'mark';
}

/** The text of the token that begins at an index; `null` where none does. */
function lexemeAt(source: string, index: number): string | null {
  if (source[index] === '"') {
    const end = quotedEnd(source, index);
    return end === -1 ? null : source.slice(index, end);
  }
  TOKEN.lastIndex = index;
  return TOKEN.exec(source)?.[0] ?? null;
}

const openString = (text: string, place: TextRange): TokenProblem => ({
  code: 'string.open',
  message: `The quoted text ${text} is not closed, or has a bad escape.`,
  place,
  fixes: [],
});

const unknownToken = (text: string, place: TextRange, fixes: readonly Fix[]): TokenProblem => ({
  code: 'token.unknown',
  message: `The notation does not use ${text}.`,
  place,
  fixes,
});

/** What other languages write around or behind a statement, and a model does without. */
const NOT_NEEDED = new Set(['{', '}', ';', '?', '`', '@']);

/** Of a line that are told. */
const MOST_PROBLEMS = 20;

/** So far around it is looked: a line may be as long as the text. */
const FAR = 120;

/** Something that the notation does not use, as far as it reaches, and what may be meant by it. */
function unknownAt(source: string, index: number, line: number): TokenProblem {
  const place = { line, column: index + 1, length: 1 };
  const quoted = /^'([^'"\\]*)'/.exec(source.slice(index, index + FAR));
  if (quoted !== null) {
    const whole = { ...place, length: quoted[0].length };
    const fix = { title: 'Use double quotes', place: whole, replacement: `"${quoted[1] ?? ''}"` };
    return unknownToken(quoted[0], whole, [fix]);
  }
  if (source.startsWith('[]', index)) {
    const type =
      /[A-Za-z_]\w*(?:\([^()]*\))?$/.exec(source.slice(Math.max(0, index - FAR), index))?.[0] ?? '';
    const whole = { line, column: index + 1 - type.length, length: type.length + 2 };
    const fix = { title: 'Use list of', place: whole, replacement: `list of ${type}` };
    return unknownToken('[]', { ...place, length: 2 }, [fix]);
  }
  const text = source.charAt(index);
  if (!NOT_NEEDED.has(text)) return unknownToken(text, place, []);
  const space = / *$/.exec(source.slice(Math.max(0, index - FAR), index))?.[0].length ?? 0;
  const around = { line, column: index + 1 - space, length: space + 1 };
  return unknownToken(text, place, [{ title: 'Take it away', place: around, replacement: '' }]);
}

const longName = (text: string, place: TextRange): TokenProblem => ({
  code: 'name.length',
  message: `A name has at most ${MODEL_LIMITS.nameLength} characters; this one has ${text.length}.`,
  place,
  fixes: [],
});

/** Splits one line into tokens. Characters it cannot read are reported and passed over. */
export function tokenize(source: string, line: number): TokenLine {
  const tokens: Token[] = [];
  const problems: TokenProblem[] = [];
  let comment: string | null = null;
  let index = 0;
  while (index < source.length) {
    // Behind a word brackets mean something else in other languages.
    const mayOpen = OPENS_JSON.test(source.charAt(index)) && !/[\w)]/.test(source.charAt(index - 1));
    const json = mayOpen ? jsonAt(source, index) : null;
    if (json !== null) {
      const place = { line, column: index + 1, length: json.text.length };
      tokens.push({ kind: 'json', ...json, place });
      index += json.text.length;
      continue;
    }
    const text = lexemeAt(source, index);
    if (text === null) {
      const rest = { line, column: index + 1, length: source.length - index };
      const found =
        source[index] === '"' ? openString(source.slice(index), rest) : unknownAt(source, index, line);
      problems.push(found);
      // A line of nothing but mistakes is told about by its first ones.
      if (problems.length === MOST_PROBLEMS) break;
      index += found.place.length;
      continue;
    }
    const place = { line, column: index + 1, length: text.length };
    const kind = lexemeOf(text);
    switch (kind) {
      case 'space':
        break;
      case 'comment':
        comment = text.slice(1).replace(/^ /, '').trimEnd();
        break;
      case 'word':
        if (text.length > MODEL_LIMITS.nameLength) problems.push(longName(text, place));
        tokens.push({ kind, text, place });
        break;
      case 'mark':
        tokens.push({ kind, text, place });
        break;
      case 'number':
        tokens.push({ kind, text, place, value: Number(text) });
        break;
      case 'string': {
        const value = unescape(text);
        if (value === null) problems.push(openString(text, place));
        else tokens.push({ kind, text, place, value });
      }
    }
    index += text.length;
  }
  return { tokens, problems, comment };
}

const OPENS_JSON = /^[[{]$/;

/** The JSON array or object that begins at an index and ends in the same line; `null` where none does. */
function jsonAt(source: string, index: number): { readonly text: string; readonly value: Json } | null {
  let depth = 0;
  for (let at = index; at < source.length && depth <= MAX_JSON_DEPTH;) {
    const char = source.charAt(at);
    const end = char === '"' ? quotedEnd(source, at) : at + 1;
    if (end === -1) return null;
    if (char === '[' || char === '{') depth++;
    if ((char === ']' || char === '}') && --depth === 0) {
      const text = source.slice(index, end);
      const read = readJson(text);
      return read.ok ? { text, value: read.value } : null;
    }
    at = end;
  }
  return null;
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
