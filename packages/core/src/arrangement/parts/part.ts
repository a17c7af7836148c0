import { isJsonObject, type Json } from '../../model/index.js';
import { escapePointer, choiceProblem, type ReadResult } from '../reading.js';

/** One kind of thing that is decided about an arrangement. */
export interface ArrangementPart<Value, Edit> {
  /** Nothing was decided. */
  readonly empty: Value;
  /** Reads what a client or a file gives; everything wrong with it is reported at once. */
  readonly read: (given: Json, pointer: string) => ReadResult<Value>;
  /** What is expected, as a JSON Schema (2020-12). */
  readonly schema: object;
  /** Everything that was decided, by what it is in words: what two states differ in follows from it. */
  readonly decided: (value: Value) => readonly Decided[];
  /** The value with something decided, or taken back. */
  readonly edit: (value: Value, edit: Edit) => Value;
}

/** What was decided, and how. */
export type Decided = readonly [what: string, how: string];

export const said = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

export const wrong = <T>(value: T, pointer: string, message: string): ReadResult<T> => ({
  value,
  problems: [choiceProblem(pointer, 'type', message)],
});

/** The object with another value under a name; without the name where the value is `null`. */
export const withEntry = <T>(
  values: Readonly<Record<string, T>>,
  name: string,
  value: T | null,
): Readonly<Record<string, T>> => {
  const others = Object.entries(values).filter(([known]) => known !== name);
  return Object.fromEntries(value === null ? others : [...others, [name, value]]);
};

/** The items with one in the place of that of its id, or at the end; without it where it is `null`. */
export function withItem<T extends { readonly id: string }>(
  items: readonly T[],
  id: string,
  item: T | null,
): readonly T[] {
  if (item === null) return items.filter((other) => other.id !== id);
  return items.some((other) => other.id === id)
    ? items.map((other) => (other.id === id ? item : other))
    : [...items, item];
}

/** The value under a name of its own; `null` where there is none. */
export const entryNamed = <T>(values: Readonly<Record<string, T>>, name: string): T | null =>
  Object.hasOwn(values, name) ? (values[name] ?? null) : null;

/** Where nothing is decided any more, no entry is left. */
export const orNone = <T extends object>(value: T): T | null =>
  Object.keys(value).length === 0 ? null : value;

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
