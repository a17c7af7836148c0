import { nearest, patternProblem, type Attribute, type KeyFlag, type Literal } from '../model/index.js';
import type { TextRange } from './diagnostics.js';
import type { LineReader } from './lineReader.js';
import { readType } from './readType.js';

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
  defaultValue: Literal | null;
  example: Literal | null;
  pattern: string | null;
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
];

const isSwitch = (name: string): name is keyof typeof SWITCHES => Object.hasOwn(SWITCHES, name);

/** Reads `name: type, flag, flag "description"`. The identity is filled in by the caller. */
export function readAttribute(reader: LineReader, comments: readonly string[]): Omit<Attribute, 'id'> | null {
  const name = reader.word('the name of an attribute');
  if (name === null || !reader.expect(':')) return null;
  if (!/^[a-z][A-Za-z0-9]*$/.test(name.text)) reportCase(reader, name.text, name.place);
  const type = readType(reader);
  const flags = readFlags(reader, type === null);
  const description = reader.description();
  if (type === null) return null;
  reader.finish();
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
  const better = words
    .map(
      (word, index) =>
        (index === 0 ? word.charAt(0).toLowerCase() : word.charAt(0).toUpperCase()) + word.slice(1),
    )
    .join('');
  const fix = /^[a-z]/.test(better) ? { title: `Use ${better}`, place, replacement: better } : null;
  reader.report('name.case', `Names of attributes are in camelCase; ${name} is not.`, place, fix);
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
  };
  if (quiet) {
    reader.skipToComma();
  }
  const seen = new Set<string>();
  while (reader.take(',')) {
    const word = reader.word('a flag');
    if (word === null) {
      reader.skipToComma();
      continue;
    }
    if (seen.has(word.text))
      reader.report('flag.duplicate', `The flag ${word.text} stands twice.`, word.place);
    seen.add(word.text);
    if (!readFlag(reader, word.text, word.place, flags)) reader.skipToComma();
  }
  return flags;
}

function readFlag(reader: LineReader, name: string, place: TextRange, flags: Flags): boolean {
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
      return readPattern(reader, flags);
    default: {
      const near = nearest(name, FLAG_NAMES);
      const hint = near === null ? `Flags are ${FLAG_NAMES.join(', ')}.` : `The nearest is ${near}.`;
      const fix = near === null ? null : { title: `Use ${near}`, place, replacement: near };
      reader.report('flag.unknown', `There is no flag ${name}. ${hint}`, place, fix);
      return false;
    }
  }
}

function readPattern(reader: LineReader, flags: Flags): boolean {
  const token = reader.next();
  if (token?.kind !== 'string') {
    reader.report('syntax.expected', 'Expected a quoted pattern.', token?.place ?? reader.here());
    return false;
  }
  const why = patternProblem(token.value);
  if (why === null) flags.pattern = token.value;
  else reader.report('pattern.invalid', `The pattern cannot be read: ${why}.`, token.place);
  return true;
}

function readLiteral(reader: LineReader): Literal | null {
  const token = reader.next();
  switch (token?.kind) {
    case 'string':
    case 'number':
      return token.value;
    case 'word':
      return token.text === 'true' ? true : token.text === 'false' ? false : token.text;
    case 'mark':
    case undefined:
      reader.report(
        'syntax.expected',
        'Expected a value: a word, a number or a quoted text.',
        token?.place ?? reader.here(),
      );
      return null;
  }
}
