import type { SourceLines } from '../report.js';
import { SqlReader, splitAtCommas, textOf } from './reader.js';
import type { SqlCheck } from './schema.js';
import type { SqlToken } from './tokens.js';

/** Reads a check as a list of options or as a range; anything else keeps its text only. */
export function readCheck(tokens: readonly SqlToken[], lines: SourceLines): SqlCheck {
  const plain = withoutWrapping(tokens);
  const reader = new SqlReader(plain);
  return {
    lines,
    text: textOf(tokens),
    meaning: readOptions(plain) ?? readRange(reader, 'range') ?? readLength(plain),
  };
}

/** The tokens without the parentheses around all of them, however many; in one pass. */
function withoutWrapping(tokens: readonly SqlToken[]): readonly SqlToken[] {
  const closing = new Map<number, number>();
  const open: number[] = [];
  tokens.forEach(({ kind, text }, index) => {
    if (kind !== 'mark') return;
    if (text === '(') open.push(index);
    const start = text === ')' ? open.pop() : undefined;
    if (start !== undefined) closing.set(start, index);
  });
  let [first, last] = [0, tokens.length - 1];
  while (first < last && closing.get(first) === last) {
    first++;
    last--;
  }
  return tokens.slice(first, last + 1);
}

/** `column IN ('a', 'b')`. */
function readOptions(tokens: readonly SqlToken[]): SqlCheck['meaning'] {
  const reader = new SqlReader(tokens);
  const column = reader.identifier();
  if (column === null || !reader.take('IN')) return null;
  const options = splitAtCommas(reader.parenthesised()).map(([token]) => token);
  if (options.length === 0 || options.some((token) => token?.kind !== 'string')) return null;
  return { kind: 'in', column, options: options.flatMap((token) => token?.text ?? []) };
}

/** `column >= 1`, `column BETWEEN 1 AND 6`, or two such comparisons of one column joined by AND. */
function readRange(reader: SqlReader, kind: 'range' | 'length'): SqlCheck['meaning'] {
  const column = kind === 'range' ? reader.identifier() : lengthOf(reader);
  if (column === null) return null;
  if (reader.take('BETWEEN')) {
    const min = readNumber(reader);
    const max = reader.take('AND') ? readNumber(reader) : null;
    return min === null || max === null || !reader.done ? null : { kind, column, min, max };
  }
  let range = readBound(reader);
  if (range !== null && reader.take('AND')) {
    const again = kind === 'range' ? reader.identifier() : lengthOf(reader);
    const second = readBound(reader);
    range =
      again !== column || second === null
        ? null
        : { min: range.min ?? second.min, max: range.max ?? second.max };
  }
  return range === null || !reader.done ? null : { kind, column, ...range };
}

/** `CHAR_LENGTH(column)`, and a range of it. */
const readLength = (tokens: readonly SqlToken[]): SqlCheck['meaning'] =>
  readRange(new SqlReader(tokens), 'length');

const LENGTHS: ReadonlySet<string> = new Set(['CHAR_LENGTH', 'CHARACTER_LENGTH', 'LENGTH']);

/** The column whose length stands here; `null` where none does. */
function lengthOf(reader: SqlReader): string | null {
  if (!LENGTHS.has(reader.identifier()?.toUpperCase() ?? '')) return null;
  const inside = new SqlReader(reader.parenthesised());
  const column = inside.identifier();
  return inside.done ? column : null;
}

function readBound(reader: SqlReader): { readonly min: number | null; readonly max: number | null } | null {
  const sign = reader.next()?.text;
  const inclusive = reader.takeMark('=');
  const value = readNumber(reader);
  if (value === null) return null;
  if (sign === '>') return { min: inclusive ? value : value + 1, max: null };
  if (sign === '<') return { min: null, max: inclusive ? value : value - 1 };
  return null;
}

function readNumber(reader: SqlReader): number | null {
  const negative = reader.takeMark('-');
  const token = reader.peek();
  if (token?.kind !== 'number') return null;
  reader.next();
  return negative ? -Number(token.text) : Number(token.text);
}
