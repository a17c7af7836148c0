import { isScalarType, type ScalarType } from '../model/index.js';
import {
  LineReader,
  printType,
  readType,
  tokenize,
  writeOperand,
  type Diagnostic,
} from '../notation/index.js';
import type { AcceptedInput, InputRules, Operand } from './customOperations.js';

/** What the rules of an input name, as the entity and the line have it. */
export interface InputWords {
  /** The attribute that the next word names; `null`, and reported, where there is none. */
  readonly member: () => string | null;
  readonly operand: () => Operand | null;
}

/**
 * Reads what comes after `accepts`, any number of inputs: `reason: text(..80), required and again: text, equals pin`.
 */
export function readAccepted(reader: LineReader, words: InputWords): readonly AcceptedInput[] | null {
  const all: AcceptedInput[] = [];
  do {
    const name = reader.word('the name of an input');
    if (name === null || !reader.expect(':')) return null;
    const rules = readInputRules(reader, words);
    if (rules === null) return null;
    all.push({ name: name.text, ...rules });
  } while (reader.take('and'));
  return all;
}

/** Reads a type and flags: `text(..80), required, secret, default "x", equals pin`. */
export function readInputRules(reader: LineReader, words: InputWords): InputRules | null {
  const place = reader.here();
  const type = readType(reader);
  if (type === null) return null;
  if (!isScalarType(type)) {
    reader.report('type.unknown', `An input is a scalar; this is ${type.kind}.`, place);
    return null;
  }
  let [required, secret] = [false, false];
  let usual: Operand | null | undefined;
  let equals: string | null | undefined;
  while (reader.take(',')) {
    if (reader.take('required')) required = true;
    else if (reader.take('secret')) secret = true;
    else if (reader.take('default')) usual = words.operand();
    else if (reader.take('equals')) equals = words.member();
    else {
      reader.expected('required, secret, default or equals');
      return null;
    }
  }
  if (usual === null || equals === null) return null;
  return {
    type: printType(type),
    required,
    secret,
    ...(usual === undefined ? {} : { default: usual }),
    ...(equals === undefined ? {} : { equals }),
  };
}

/** The type that such a text names; `null` where it names no scalar. */
export function inputType(text: string): ScalarType | null {
  const line = tokenize(text, 1);
  const diagnostics: Diagnostic[] = line.problems.map((problem) => ({ ...problem, fixes: [] }));
  const reader = new LineReader(line, { line: 1, column: text.length + 1, length: 1 }, diagnostics);
  const type = readType(reader);
  reader.finish();
  return diagnostics.length === 0 && type !== null && isScalarType(type) ? type : null;
}

/** The text that `readAccepted` reads, with `accepts` before it; empty where nothing is accepted. */
export function printAccepted(
  accepted: readonly AcceptedInput[] | undefined,
  nameOf: (member: string) => string,
): readonly string[] {
  if (accepted === undefined || accepted.length === 0) return [];
  const all = accepted.map((one) => `${one.name}: ${printInputRules(one, nameOf)}`);
  return [`accepts ${all.join(' and ')}`];
}

/** The text that `readInputRules` reads. */
export const printInputRules = (rules: InputRules, nameOf: (member: string) => string): string =>
  [
    rules.type,
    ...(rules.required ? ['required'] : []),
    ...(rules.secret ? ['secret'] : []),
    ...(rules.default === undefined ? [] : [`default ${printOperand(rules.default)}`]),
    ...(rules.equals === undefined ? [] : [`equals ${nameOf(rules.equals)}`]),
  ].join(', ');

/** Something known from the start, or the moment, as a line has it. */
export const printOperand = (value: Operand): string =>
  value.kind === 'now' ? 'now' : writeOperand(value.value);
