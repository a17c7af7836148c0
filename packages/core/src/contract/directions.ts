import type { SortSpelling } from './operation.js';

/** What each spelling of sort keys says of directions, as it follows a word for the keys. */
export const DIRECTIONS: Readonly<Record<SortSpelling, string>> = {
  minus: ', each with - in front for descending',
  suffix: ', each followed by :desc for descending',
  repeated: ', each in a parameter of its own and followed by ,desc for descending',
  beside: ', their directions told beside them',
};
