import { appendAll } from '../../model/index.js';
import type { Bound } from '../bounds.js';
import type { SourceLines } from '../lines.js';
import { SqlReader, splitAtCommas, textOf } from './reader.js';
import { same, type SqlCheck, type SqlCheckMeaning } from './schema.js';
import type { SqlToken } from './tokens.js';

/**
 * Reads a check as options and ranges of single columns, joined by AND; anything else keeps its text only, and is never
 * read by half.
 */
export function readCheck(tokens: readonly SqlToken[], lines: SourceLines, name: string | null): SqlCheck {
  const plain = withoutWrapping(tokens);
  const reader = new SqlReader(plain);
  const meant = plain.length > MOST_TOKENS ? null : readAlternatives(reader, DEEPEST);
  return { name, lines, text: textOf(tokens.slice(0, MOST_TOLD)), meaning: reader.done ? meant : null };
}

/** So many tokens are read of one; no check that says options or a range has more. */
const MOST_TOKENS = 10_000;

/** So many tokens are told of one that is not read. */
const MOST_TOLD = 60;

/** So deep parentheses are read. */
const DEEPEST = 40;

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

/** What holds together; `null` where it cannot be read. */
type Meant = readonly SqlCheckMeaning[] | null;

/**
 * Alternatives: of one column's values they are options. That a column is unset is none: what is unset passes every
 * check.
 */
function readAlternatives(reader: SqlReader, left: number): Meant {
  const all = [readAll(reader, left)];
  while (reader.take('OR')) all.push(readAll(reader, left));
  const said = all.filter((one) => one === null || one.length > 0);
  const [first] = said;
  if (said.length <= 1) return first ?? (all.includes(null) ? null : []);
  const options: string[] = [];
  let column: string | null = null;
  for (const one of said) {
    const [only] = one ?? [];
    if (one?.length !== 1 || only?.kind !== 'in' || (column !== null && !same(column, only.column)))
      return null;
    column = only.column;
    appendAll(options, only.options);
  }
  return column === null ? null : [{ kind: 'in', column, options }];
}

function readAll(reader: SqlReader, left: number): Meant {
  const all: SqlCheckMeaning[] = [];
  do {
    const one = readOne(reader, left);
    if (one === null) return null;
    appendAll(all, one);
  } while (reader.take('AND'));
  return all;
}

function readOne(reader: SqlReader, left: number): Meant {
  if (left === 0) return null;
  if (reader.isMark('(') && isCondition(reader)) {
    const inside = new SqlReader(reader.parenthesised());
    const meant = readAlternatives(inside, left - 1);
    return inside.done ? meant : null;
  }
  const first = readOperand(reader, left);
  if (first === null) return null;
  if (reader.take('IS'))
    return !reader.take('NOT') && reader.take('NULL') && first.kind === 'column' ? [] : null;
  if (first.kind === 'literal') return compared(flipped(readSign(reader)), readOperand(reader, left), first);
  if (reader.take('BETWEEN')) {
    const min = readOperand(reader, left);
    const max = reader.take('AND') ? readOperand(reader, left) : null;
    if (min?.kind !== 'literal' || max?.kind !== 'literal') return null;
    return joined(compared('>=', first, min), compared('<=', first, max));
  }
  if (reader.take('IN')) return listed(first, literalsIn(reader.parenthesised()));
  const sign = readSign(reader);
  if (sign === '=' && reader.takeOne('ANY', 'SOME'))
    return listed(first, arrayOf(reader.parenthesised(), left));
  return compared(sign, first, readOperand(reader, left));
}

/** Whether what stands in the parentheses here is a condition rather than a value. */
function isCondition(reader: SqlReader): boolean {
  let depth = 0;
  for (let ahead = 0; ; ahead++) {
    const token = reader.peek(ahead);
    if (token === undefined) return true;
    if (token.kind !== 'mark') continue;
    if (token.text === '(') depth++;
    if (token.text === ')' && --depth === 0) {
      const behind = reader.peek(ahead + 1);
      return behind === undefined || behind.word === 'AND' || behind.word === 'OR';
    }
  }
}

const joined = (one: Meant, other: Meant): Meant =>
  one === null || other === null ? null : [...one, ...other];

type Operand =
  | { readonly kind: 'column' | 'length'; readonly column: string }
  | { readonly kind: 'literal'; readonly value: string | number };

type Sign = '=' | '<' | '<=' | '>' | '>=';

const LENGTHS: ReadonlySet<string> = new Set(['CHAR_LENGTH', 'CHARACTER_LENGTH', 'LENGTH']);

/** A column, how long it is, or a value; casts behind it say nothing more. */
function readOperand(reader: SqlReader, left: number): Operand | null {
  const operand = readBare(reader, left);
  while (reader.takeMark('::')) {
    reader.identifier();
    while (reader.takeOne('VARYING', 'PRECISION')) continue;
    reader.parenthesised();
    while (reader.takeMark('[')) reader.takeMark(']');
  }
  return operand;
}

function readBare(reader: SqlReader, left: number): Operand | null {
  if (left === 0) return null;
  if (reader.isMark('(')) {
    const inside = new SqlReader(reader.parenthesised());
    const operand = readOperand(inside, left - 1);
    return inside.done ? operand : null;
  }
  const isNegative = reader.takeMark('-');
  const token = reader.peek();
  if (token?.kind === 'number') {
    reader.next();
    return { kind: 'literal', value: (isNegative ? -1 : 1) * Number(token.text) };
  }
  if (token?.kind === 'string' && !isNegative) {
    reader.next();
    return { kind: 'literal', value: token.text };
  }
  const name = reader.identifier();
  if (name === null || isNegative) return null;
  if (!reader.isMark('(')) return { kind: 'column', column: name };
  if (!LENGTHS.has(name.toUpperCase())) return null;
  const inside = new SqlReader(reader.parenthesised());
  const of = readOperand(inside, left - 1);
  return inside.done && of?.kind === 'column' ? { kind: 'length', column: of.column } : null;
}

function readSign(reader: SqlReader): Sign | null {
  if (reader.takeMark('=')) return '=';
  const isLess = reader.takeMark('<');
  if (!isLess && !reader.takeMark('>')) return null;
  if (isLess && reader.isMark('>')) return null;
  const withEqual = reader.takeMark('=');
  return isLess ? (withEqual ? '<=' : '<') : withEqual ? '>=' : '>';
}

const FLIPPED: Readonly<Record<Sign, Sign>> = { '=': '=', '<': '>', '<=': '>=', '>': '<', '>=': '<=' };

const flipped = (sign: Sign | null): Sign | null => (sign === null ? null : FLIPPED[sign]);

/** What a comparison of a column with a value means. */
function compared(sign: Sign | null, of: Operand | null, to: Operand | null): Meant {
  if (sign === null || of === null || of.kind === 'literal' || to?.kind !== 'literal') return null;
  const { value } = to;
  if (typeof value === 'string') {
    if (sign === '=') return optionsOf(of, [value]);
    return value.trim() !== '' && Number.isFinite(Number(value)) ? bounded(sign, of, Number(value)) : null;
  }
  return bounded(sign, of, value);
}

function bounded(sign: Sign, { kind, column }: Exclude<Operand, { kind: 'literal' }>, value: number): Meant {
  const of = kind === 'length' ? 'length' : 'range';
  const bound: Bound = { value, isExclusive: sign === '<' || sign === '>' };
  const isLow = sign !== '<' && sign !== '<=';
  const isHigh = sign !== '>' && sign !== '>=';
  return [{ kind: of, column, min: isLow ? bound : null, max: isHigh ? bound : null }];
}

/** Options of texts; whole numbers without a gap are a range. */
function listed(of: Operand, values: readonly (string | number)[] | null): Meant {
  const texts = values?.filter((value) => typeof value === 'string') ?? [];
  if (values === null || texts.length === values.length) return optionsOf(of, values === null ? null : texts);
  const numbers = values.filter((value) => typeof value === 'number').sort((a, b) => a - b);
  const [least] = numbers;
  const isRange =
    numbers.length === values.length &&
    numbers.every((number, at) => Number.isInteger(number) && number === (least ?? 0) + at);
  return !isRange || least === undefined || of.kind !== 'column'
    ? null
    : joined(bounded('>=', of, least), bounded('<=', of, least + numbers.length - 1));
}

function optionsOf(of: Operand, options: readonly string[] | null): Meant {
  return of.kind !== 'column' || options === null || options.length === 0
    ? null
    : [{ kind: 'in', column: of.column, options }];
}

/** Values between commas, each with its casts; `null` where there is anything else. */
function literalsIn(tokens: readonly SqlToken[]): readonly (string | number)[] | null {
  const values: (string | number)[] = [];
  for (const part of splitAtCommas(tokens)) {
    const reader = new SqlReader(part);
    const operand = readOperand(reader, DEEPEST);
    if (!reader.done || operand?.kind !== 'literal') return null;
    values.push(operand.value);
  }
  return values;
}

/** The texts of `ARRAY['a', 'b']` or `'{a,b}'`, with the casts and parentheses of dumps. */
function arrayOf(tokens: readonly SqlToken[], left: number): readonly (string | number)[] | null {
  const reader = new SqlReader(tokens);
  if (reader.isMark('(') && left > 0) return arrayOf(reader.parenthesised(), left - 1);
  if (reader.take('ARRAY') && reader.isMark('[')) {
    const from = tokens.findIndex(({ kind, text }) => kind === 'mark' && text === '[');
    const to = tokens.findIndex(({ kind, text }) => kind === 'mark' && text === ']');
    return literalsIn(tokens.slice(from + 1, to === -1 ? undefined : to));
  }
  const [token] = tokens;
  const inside = token?.kind === 'string' ? /^\{(.*)\}$/.exec(token.text)?.[1] : undefined;
  return inside === undefined ? null : inside.split(',').map((one) => one.replace(/^"|"$/g, ''));
}
