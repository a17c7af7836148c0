import type { Row } from '../model/index.js';

/** A value of the path, and what it is the id of: the resource that has the records, by its id. */
export interface ExampleId {
  readonly of: string;
  readonly value: string;
}

/**
 * A request under a name, with the records it needs. What it is answered is computed, so that it cannot be untrue. It
 * holds no secrets: credentials are put in where it is shown.
 */
export interface NamedExample {
  readonly id: string;
  /** Unique among the examples of its operation. */
  readonly name: string;
  /** By `operationKey`. */
  readonly operation: string;
  /** The ids in the path, in its order. */
  readonly ids: readonly ExampleId[];
  /** As it is sent, without the question mark. */
  readonly query: string;
  /** By their names in lower case; credentials and states are none of them. */
  readonly headers: Readonly<Record<string, string>>;
  /** `null` where none is sent. */
  readonly body: string | null;
  /** What members of the body show, by the names they had: by that they are found again under other names. */
  readonly members: Readonly<Record<string, string>>;
  readonly records: readonly Row[];
  /** The moment of the request, in milliseconds since 1970. */
  readonly now: number;
  /** What it was answered when it was kept. */
  readonly status: number;
}

export const LONGEST_EXAMPLE_NAME = 60;
export const EXAMPLE_NAME = new RegExp(`^[A-Za-z0-9][A-Za-z0-9 ._-]{0,${LONGEST_EXAMPLE_NAME - 1}}$`);
export const EXPECTED_EXAMPLE_NAME = `a name of 1 to ${LONGEST_EXAMPLE_NAME} letters, digits, blanks, dots, hyphens or underscores`;
/** Of an arrangement. */
export const MOST_EXAMPLES = 200;
/** That an example holds. */
export const MOST_EXAMPLE_RECORDS = 100;
export const MOST_EXAMPLE_IDS = 20;
export const LONGEST_EXAMPLE_QUERY = 4_000;
export const LONGEST_EXAMPLE_BODY = 65_536;
/** What a member or a header of an example may be told in. */
export const LONGEST_EXAMPLE_TEXT = 400;
/** Headers that an example may hold. */
export const EXAMPLE_HEADERS = ['accept', 'content-type', 'prefer'] as const;
