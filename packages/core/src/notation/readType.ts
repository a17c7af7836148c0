import type { AttributeType, ExclusiveBounds } from '../model/index.js';
import type { Fix, TextRange } from './diagnostics.js';
import type { LineReader } from './lineReader.js';
import { across, fixesFor, guess, meaningsOf, TYPE_WORDS, writeInstead } from './otherWords.js';

const PLAIN = ['boolean', 'date', 'time', 'instant', 'duration', 'uuid', 'email', 'uri', 'json'] as const;
type PlainKind = (typeof PLAIN)[number];

/** Whether a word is the name of a type, here or elsewhere. */
export const isTypeWord = (word: string): boolean =>
  TYPE_NAMES.includes(word) || meaningsOf(TYPE_WORDS, word).length > 0;

export const TYPE_NAMES: readonly string[] = ['text', 'integer', 'decimal', ...PLAIN, 'choice', 'list'];

const isPlain = (name: string): name is PlainKind => (PLAIN as readonly string[]).includes(name);

/** Reads a type. Returns `null` when it could not be read; that has then been reported. */
export function readType(reader: LineReader): AttributeType | null {
  const word = reader.word('a type');
  if (word === null) return null;
  const name = word.text;
  if (isPlain(name)) return { kind: name };
  switch (name) {
    case 'text': {
      const range = readRange(reader);
      return range && lengthFits(reader, word.place, range)
        ? { kind: 'text', pattern: null, ...range }
        : null;
    }
    case 'integer': {
      const range = readRange(reader);
      return range && { kind: 'integer', ...range };
    }
    case 'decimal':
      return readDecimal(reader);
    case 'choice':
      return readChoice(reader);
    case 'list':
      return readList(reader);
    default:
      if (/^[A-Z]/.test(name)) return { kind: 'value', name };
      reportUnknownType(reader, name, word.place);
      return null;
  }
}

function reportUnknownType(reader: LineReader, name: string, place: TextRange): void {
  const { meanings, hint } = guess(TYPE_WORDS, TYPE_NAMES, name, reader.mayGuess);
  reader.report('type.unknown', `There is no type ${name}.${hint}`, place, fixesFor(meanings, place));
}

interface ReadRange {
  min: number | null;
  max: number | null;
}

function readRange(reader: LineReader): ReadRange | null {
  if (!reader.take('(')) return { min: null, max: null };
  const range = readBounds(reader);
  return range !== null && reader.expect(')') ? range : null;
}

function readBounds(reader: LineReader): ReadRange | null {
  const place = reader.here();
  const min = takeNumber(reader);
  if (!reader.expect('..', () => oneEndFixes(reader, min))) return null;
  const max = takeNumber(reader);
  if (min !== null && max !== null && min > max) {
    reader.report('type.range', `The range ${min}..${max} is empty: its first end is the greater.`, place, [
      ...writeInstead(`${max}..${min}`, { ...place, length: `${min}..${max}`.length }),
    ]);
    return null;
  }
  return { min, max };
}

/** The bounds of a decimal, which may be out themselves: `>0..`, `..<1`. */
function readDecimalBounds(reader: LineReader): (ReadRange & ExclusiveBounds) | null {
  const place = reader.here();
  const isAbove = reader.take('>');
  if (isAbove && reader.peek()?.kind !== 'number') {
    reader.report('type.range', 'Expected a number behind >: values are greater than it.', reader.here());
    return null;
  }
  if (!isAbove && reader.peek(isNumberNext(reader) ? 2 : 1)?.text !== '<') return readBounds(reader);
  const min = takeNumber(reader);
  if (!reader.expect('..')) return null;
  const isBelow = reader.take('<');
  const max = takeNumber(reader);
  if (isBelow && max === null) {
    reader.report('type.range', 'Expected a number behind <: values are less than it.', reader.here());
    return null;
  }
  if (min !== null && max !== null && min >= max) {
    const written = `${isAbove ? '>' : ''}${min}..${isBelow ? '<' : ''}${max}`;
    reader.report('type.range', `The range ${written} is empty.`, place);
    return null;
  }
  return {
    min,
    max,
    ...(isAbove ? { exclusiveMin: true } : {}),
    ...(isBelow ? { exclusiveMax: true } : {}),
  };
}

const isNumberNext = (reader: LineReader): boolean => reader.peek()?.kind === 'number';

/** A range needs two ends: what a single number in its place may mean. */
function oneEndFixes(reader: LineReader, end: number | null): readonly Fix[] {
  const [number, next, after] = [reader.last(), reader.peek(), reader.peek(1)];
  if (end === null || number === null) return [];
  // Digits in all and digits after the point, as databases count them.
  if (next?.text === ',' && after?.kind === 'number') {
    return writeInstead(`scale ${after.value}`, across(number.place, after.place));
  }
  return fixesFor(
    [
      { write: `..${end}`, means: `at most ${end}` },
      { write: `${end}..${end}`, means: `exactly ${end}` },
    ],
    number.place,
  );
}

function takeNumber(reader: LineReader): number | null {
  const token = reader.peek();
  if (token?.kind !== 'number') return null;
  reader.next();
  return token.value;
}

function lengthFits(reader: LineReader, place: TextRange, range: ReadRange): boolean {
  const whole = (bound: number | null): boolean =>
    bound === null || (Number.isSafeInteger(bound) && bound >= 0);
  if (whole(range.min) && whole(range.max)) return true;
  reader.report('type.range', 'A length is a whole number, 0 or more.', place);
  return false;
}

function readDecimal(reader: LineReader): AttributeType | null {
  if (!reader.take('(')) return { kind: 'decimal', min: null, max: null, scale: null };
  let range: (ReadRange & ExclusiveBounds) | null = { min: null, max: null };
  let scale: number | null = null;
  if (reader.peek()?.text !== 'scale') {
    range = readDecimalBounds(reader);
    if (range === null) return null;
    if (!reader.take(',')) return reader.expect(')') ? { kind: 'decimal', ...range, scale } : null;
  }
  const place = reader.here();
  if (!reader.expect('scale')) return null;
  scale = takeNumber(reader);
  if (scale === null || !Number.isInteger(scale) || scale < 0 || scale > 15) {
    reader.report('type.range', 'A scale is a whole number from 0 to 15.', place);
    return null;
  }
  return reader.expect(')') ? { kind: 'decimal', ...range, scale } : null;
}

function readChoice(reader: LineReader): AttributeType | null {
  if (!reader.expect('(')) return null;
  const options = new Set<string>();
  do {
    const token = reader.next();
    if (token === null || (token.kind !== 'word' && token.kind !== 'string')) {
      reader.report('syntax.expected', 'Expected an option of the choice.', token?.place ?? reader.here());
      return null;
    }
    const option = token.kind === 'string' ? token.value : token.text;
    if (options.has(option))
      reader.report('choice.duplicate', `The option ${option} stands twice.`, token.place);
    options.add(option);
  } while (reader.take(','));
  return reader.expect(')') ? { kind: 'choice', options: [...options] } : null;
}

function readList(reader: LineReader): AttributeType | null {
  const place = reader.here();
  const range = readRange(reader);
  if (range === null || !lengthFits(reader, place, range) || !reader.expect('of')) return null;
  if (reader.peek()?.text === 'list') {
    reader.report(
      'type.range',
      'A list holds values, not lists; name a value that has the inner list.',
      reader.here(),
    );
    return null;
  }
  const of = readType(reader);
  return of && { kind: 'list', ...range, of };
}
