import type { Json } from '../model/index.js';

/** Something in what a client sent that does not fit. */
export interface ChoiceProblem {
  /** A JSON pointer (RFC 6901) to what does not fit. */
  readonly pointer: string;
  readonly code: string;
  readonly message: string;
}

/** What was read, with everything that does not fit in it. */
export interface ReadResult<T> {
  readonly value: T;
  readonly problems: readonly ChoiceProblem[];
}

/** RFC 6901 §3. */
export const escapePointer = (name: string): string => name.replaceAll('~', '~0').replaceAll('/', '~1');

export const choiceProblem = (pointer: string, code: string, message: string): ChoiceProblem => ({
  pointer,
  code,
  message,
});

/** A problem for each member that nobody knows. */
export const unknownMembers = (
  others: Readonly<Record<string, Json>>,
  pointer: string,
  who: string,
): ChoiceProblem[] =>
  Object.keys(others).map((name) =>
    choiceProblem(`${pointer}/${escapePointer(name)}`, 'unknown', `${who} no member ${name}.`),
  );
