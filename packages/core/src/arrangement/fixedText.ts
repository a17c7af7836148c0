import { bareObject, isJsonObject, readJson, type Json, type Literal } from '../model/index.js';
import { DEEPEST_FIXED, type FixedValue } from './customOperations.js';

export type FixedRead =
  | { readonly ok: true; readonly body: FixedValue }
  /** What was expected, and where in the text: its column, from 1. */
  | { readonly ok: false; readonly message: string; readonly column: number };

/** What the words of a fixed answer are read as; known by being just these. */
const NOW: Json = bareObject();
const VERSION: Json = bareObject();
const WORDS: ReadonlyMap<string, Json> = new Map([
  ['now', NOW],
  ['version', VERSION],
]);

/** Reads a fixed answer: JSON in which a value may be `now` or `version`. */
export function readFixed(text: string): FixedRead {
  const read = readJson(text, { depth: DEEPEST_FIXED, words: WORDS });
  if (!read.ok) return { ok: false, message: read.problem.message, column: read.problem.column };
  return { ok: true, body: fixedOf(read.value) };
}

function fixedOf(value: Json): FixedValue {
  if (value === NOW) return { kind: 'now' };
  if (value === VERSION) return { kind: 'version' };
  if (Array.isArray(value)) return { kind: 'list', items: (value as readonly Json[]).map(fixedOf) };
  if (!isJsonObject(value)) return { kind: 'literal', value: value as Literal | null };
  return {
    kind: 'object',
    members: Object.entries(value).map(([name, inner]) => ({ name, value: fixedOf(inner) })),
  };
}

/** The text that `readFixed` reads as the answer. */
export function printFixed(body: FixedValue): string {
  switch (body.kind) {
    case 'literal':
      return JSON.stringify(body.value);
    case 'now':
    case 'version':
      return body.kind;
    case 'list':
      return `[${body.items.map(printFixed).join(', ')}]`;
    case 'object':
      return body.members.length === 0
        ? '{}'
        : `{ ${body.members.map(({ name, value }) => `${JSON.stringify(name)}: ${printFixed(value)}`).join(', ')} }`;
  }
}
