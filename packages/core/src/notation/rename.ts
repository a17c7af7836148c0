import type { TextRange } from './diagnostics.js';
import { findOccurrences, occurrenceAt, type Occurrence } from './occurrences.js';
import { RESERVED_OPERANDS, writeOption } from './tokens.js';

export type RenameResult =
  | { readonly ok: true; readonly text: string; readonly places: readonly TextRange[] }
  /** Why the name cannot be given, in a sentence. */
  | { readonly ok: false; readonly message: string };

const FORMS = {
  block: { pattern: /^[A-Z][A-Za-z0-9]*$/, expected: 'a name in PascalCase' },
  member: { pattern: /^[a-z][A-Za-z0-9]*$/, expected: 'a name in camelCase' },
  transition: { pattern: /^[a-z][A-Za-z0-9]*$/, expected: 'a name in camelCase' },
  state: { pattern: /^[^\r\n]+$/, expected: 'a text on one line' },
} as const satisfies Record<Occurrence['kind'], { pattern: RegExp; expected: string }>;

/** Gives another name to what stands at a line and column, everywhere it is used. Everything else stays. */
export function renameAt(text: string, line: number, column: number, name: string): RenameResult {
  const found = findOccurrences(text);
  const chosen = occurrenceAt(found, line, column);
  if (chosen === null) return { ok: false, message: 'There is no name here that could be changed.' };
  const form = FORMS[chosen.kind];
  if (!form.pattern.test(name)) return { ok: false, message: `Expected ${form.expected}.` };
  const symbol = chosen.symbol.slice(0, chosen.symbol.length - chosen.name.length) + name;
  if (
    symbol !== chosen.symbol &&
    found.some((occurrence) => occurrence.symbol === symbol && occurrence.defines)
  ) {
    return { ok: false, message: `There is something called ${name} here already.` };
  }
  const places = found.filter((occurrence) => isPartOf(occurrence, chosen)).map(({ place }) => place);
  const written = chosen.kind === 'state' ? writeState(name) : name;
  return { ok: true, text: replaceAll(text, places, written), places };
}

/** A state stands in conditions too, where some words mean something else. */
const writeState = (name: string): string =>
  RESERVED_OPERANDS.has(name) ? JSON.stringify(name) : writeOption(name);

const isPartOf = (occurrence: Occurrence, chosen: Occurrence): boolean => occurrence.symbol === chosen.symbol;

function replaceAll(text: string, places: readonly TextRange[], replacement: string): string {
  const lines = text.split('\n');
  const fromBehind = [...places].sort((a, b) => b.line - a.line || b.column - a.column);
  for (const { line, column, length } of fromBehind) {
    const source = lines[line - 1] ?? '';
    lines[line - 1] = source.slice(0, column - 1) + replacement + source.slice(column - 1 + length);
  }
  return lines.join('\n');
}
