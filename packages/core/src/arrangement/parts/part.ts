import { isJsonObject, type Json } from '../../model/index.js';
import { escapePointer, choiceProblem, type ReadResult } from '../reading.js';

/** One kind of thing that is decided about an arrangement. */
export interface ArrangementPart<Value> {
  /** Nothing was decided. */
  readonly empty: Value;
  /** Reads what a client or a file gives; everything wrong with it is reported at once. */
  readonly read: (given: Json, pointer: string) => ReadResult<Value>;
  /** What is expected, as a JSON Schema (2020-12). */
  readonly schema: object;
  /** Everything that was decided, by what it is in words: what two states differ in follows from it. */
  readonly decided: (value: Value) => readonly Decided[];
}

/** What was decided, and how. */
export type Decided = readonly [what: string, how: string];

export const said = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

export const wrong = <T>(value: T, pointer: string, message: string): ReadResult<T> => ({
  value,
  problems: [choiceProblem(pointer, 'type', message)],
});

const MOST_ENTRIES = 10_000;

/** The members of an object, each read on its own. */
export function readEach<T>(
  given: Json,
  pointer: string,
  expected: string,
  read: (value: Json, at: string) => ReadResult<T>,
): ReadResult<Record<string, T>> {
  if (!isJsonObject(given)) return wrong({}, pointer, expected);
  const entries = Object.entries(given);
  if (entries.length > MOST_ENTRIES) return wrong({}, pointer, `Expected at most ${MOST_ENTRIES} entries.`);
  const results = entries.map(([id, value]) => [id, read(value, `${pointer}/${escapePointer(id)}`)] as const);
  return {
    value: Object.fromEntries(results.map(([id, { value }]) => [id, value])),
    problems: results.flatMap(([, { problems }]) => problems),
  };
}
