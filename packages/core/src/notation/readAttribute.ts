import {
  capital,
  patternProblem,
  uncapital,
  type Attribute,
  type Expression,
  type Json,
  type KeyFlag,
} from '../model/index.js';
import type { Fix, TextRange } from './diagnostics.js';
import type { LineReader } from './lineReader.js';
import { readExpression } from './readExpression.js';
import {
  across,
  behind,
  fixesFor,
  FLAG_WORDS,
  guess,
  meaningsOf,
  TYPE_WORDS,
  writeInstead,
} from './otherWords.js';
import { isTypeWord, readType } from './readType.js';
import { sentenceFixes } from './sentences.js';
import type { Token } from './tokens.js';

interface Flags {
  required: boolean;
  unique: boolean;
  uniqueWithin: string | null;
  key: KeyFlag | null;
  generated: boolean;
  touched: boolean;
  fixed: boolean;
  readOnly: boolean;
  writeOnly: boolean;
  defaultValue: Json;
  example: Json;
  pattern: string | null;
  computed: Expression | null;
}

const SWITCHES = {
  required: 'required',
  generated: 'generated',
  touched: 'touched',
  fixed: 'fixed',
  'read-only': 'readOnly',
  'write-only': 'writeOnly',
} as const satisfies Record<string, keyof Flags>;

export const FLAG_NAMES: readonly string[] = [
  ...Object.keys(SWITCHES),
  'unique',
  'key',
  'default',
  'example',
  'pattern',
  'computed',
];

const isSwitch = (name: string): name is keyof typeof SWITCHES => Object.hasOwn(SWITCHES, name);

/** Reads `name: type, flag, flag "description"`. The identity is filled in by the caller. */
export function readAttribute(reader: LineReader, comments: readonly string[]): Omit<Attribute, 'id'> | null {
  const name = reader.word('the name of an attribute');
  if (name === null || !reader.expect(':', () => colonFixes(reader, name.text))) return null;
  if (!/^[a-z][A-Za-z0-9]*$/.test(name.text)) reportCase(reader, name.text, name.place);
  const type = readType(reader);
  const flags = readFlags(reader, type === null);
  const description = reader.description();
  if (type === null) return null;
  reader.finish(() => commaFixes(reader));
  const { pattern, ...rest } = flags;
  if (pattern !== null && type.kind !== 'text') {
    reader.report('flag.conflict', `A pattern needs text; ${name.text} is ${type.kind}.`, name.place);
  }
  return {
    kind: 'attribute',
    name: name.text,
    type: type.kind === 'text' ? { ...type, pattern } : type,
    description,
    comments,
    ...rest,
    lifeCycle: null,
    generated: rest.generated || rest.key?.generated === true,
    key: rest.key === null ? null : { ...rest.key, generated: rest.key.generated || rest.generated },
  };
}

function reportCase(reader: LineReader, name: string, place: TextRange): void {
  const words = name.split(/[_-]+/).filter((word) => word !== '');
  const better = words.map((word, index) => (index === 0 ? uncapital(word) : capital(word))).join('');
  const fixes = /^[a-z]/.test(better) ? writeInstead(better, place) : [];
  reader.report('name.case', `Names of attributes are in camelCase; ${name} is not.`, place, fixes);
}

/** Where the colon behind the name of an attribute is missing: it is put in, or the type is moved behind the name. */
function colonFixes(reader: LineReader, name: string): readonly Fix[] {
  const [before, next] = [reader.last(), reader.peek()];
  if (before === null || next?.kind !== 'word') return [];
  const sentences = sentenceFixes(reader.all());
  // A sentence stands at the margin.
  if (sentences.length > 0) return sentences.map((fix) => ({ ...fix, place: fromMargin(fix.place) }));
  const isType = isTypeWord(next.text) || /^[A-Z]/.test(next.text);
  if (isTypeWord(name) && !isType) {
    const type = meaningsOf(TYPE_WORDS, name)[0]?.write ?? name;
    return writeInstead(`${next.text}: ${type}`, across(before.place, next.place));
  }
  return isType ? [{ title: 'Put the colon in', place: behind(before.place), replacement: ':' }] : [];
}

const fromMargin = ({ line, column, length }: TextRange): TextRange => ({
  line,
  column: 1,
  length: column - 1 + length,
});

/** Where the comma before a flag is missing. */
function commaFixes(reader: LineReader): readonly Fix[] {
  const [before, flag, second] = [reader.last(), reader.peek(), reader.peek(1)];
  if (before === null || flag?.kind !== 'word') return [];
  const isFlag =
    FLAG_NAMES.includes(flag.text) ||
    [flag.text, `${flag.text} ${second?.text ?? ''}`].some((word) => meaningsOf(FLAG_WORDS, word).length > 0);
  return isFlag ? [{ title: 'Put the comma in', place: behind(before.place), replacement: ',' }] : [];
}

function readFlags(reader: LineReader, quiet: boolean): Flags {
  const flags: Flags = {
    required: false,
    unique: false,
    uniqueWithin: null,
    key: null,
    generated: false,
    touched: false,
    fixed: false,
    readOnly: false,
    writeOnly: false,
    defaultValue: null,
    example: null,
    pattern: null,
    computed: null,
  };
  if (quiet) {
    reader.skipToComma();
  }
  const seen = new Set<string>();
  for (let comma = reader.peek(); comma !== null && reader.take(','); comma = reader.peek()) {
    const word = reader.word('a flag');
    if (word === null) {
      reader.skipToComma();
      continue;
    }
    if (seen.has(word.text))
      reader.report('flag.duplicate', `The flag ${word.text} stands twice.`, word.place);
    seen.add(word.text);
    if (readFlag(reader, word.text, flags)) continue;
    reportUnknownFlag(reader, word, comma.place);
    reader.skipToComma();
  }
  return flags;
}

/** Reads what belongs to a flag; whether there is one of that name. */
function readFlag(reader: LineReader, name: string, flags: Flags): boolean {
  if (isSwitch(name)) {
    flags[SWITCHES[name]] = true;
    return true;
  }
  switch (name) {
    case 'unique':
      if (!reader.take('within')) flags.unique = true;
      else flags.uniqueWithin = reader.word('the role it is unique within')?.text ?? null;
      return true;
    case 'key': {
      const within = reader.take('within') ? (reader.word('the role of the owner')?.text ?? null) : null;
      flags.key = { generated: false, within };
      return true;
    }
    case 'default':
      flags.defaultValue = readLiteral(reader);
      return true;
    case 'example':
      flags.example = readLiteral(reader);
      return true;
    case 'pattern':
      readPattern(reader, flags);
      return true;
    case 'computed':
      flags.computed = readExpression(reader);
      if (flags.computed === null) reader.skipToComma();
      return true;
    default:
      return false;
  }
}

/** A flag may be called otherwise elsewhere, in one word or two. */
function reportUnknownFlag(reader: LineReader, word: Token, comma: TextRange): void {
  const second = reader.peek();
  const two = second?.kind === 'word' ? meaningsOf(FLAG_WORDS, `${word.text} ${second.text}`) : [];
  const place = two.length > 0 && second !== null ? across(word.place, second.place) : word.place;
  const name = two.length > 0 ? `${word.text} ${second?.text ?? ''}` : word.text;
  const { meanings, hint } = guess(FLAG_WORDS, FLAG_NAMES, name, reader.mayGuess);
  const fixes = fixesFor(meanings, place, across(comma, place));
  reader.report('flag.unknown', `There is no flag ${name}.${hint}`, word.place, fixes);
}

function readPattern(reader: LineReader, flags: Flags): void {
  const token = reader.next();
  if (token?.kind !== 'string') {
    reader.report('syntax.expected', 'Expected a quoted pattern.', token?.place ?? reader.here());
    return;
  }
  const why = patternProblem(token.value);
  if (why === null) flags.pattern = token.value;
  else reader.report('pattern.invalid', `The pattern cannot be read: ${why}.`, token.place);
}

function readLiteral(reader: LineReader): Json {
  const token = reader.next();
  switch (token?.kind) {
    case 'string':
    case 'number':
    case 'json':
      return token.value;
    case 'word':
      return token.text === 'true' ? true : token.text === 'false' ? false : token.text;
    case 'mark':
    case undefined:
      if (token?.text === '=') {
        const [place, fix] = [token.place, { title: 'Take it away', place: token.place, replacement: '' }];
        reader.report('syntax.expected', 'A default follows without a sign.', place, [fix]);
        return readLiteral(reader);
      }
      reader.report(
        'syntax.expected',
        'Expected a value: a word, a number, a quoted text, a list in brackets or an object in braces.',
        token?.place ?? reader.here(),
      );
      return null;
  }
}
