import { ApiProblem } from './problem.js';

/** The strong entity tag (RFC 9110 §8.8.3) of a revision. */
export const etagOf = (revision: number): string => `"${revision}"`;

/** Refuses a write whose `If-Match` (RFC 9110 §13.1.1) does not name the revision there is. */
export function checkIfMatch(header: string | undefined, revision: number): void {
  if (header === undefined || header.trim() === '*') return;
  const tags = header.split(',').map((tag) => tag.trim());
  if (tags.includes(etagOf(revision))) return;
  const headers = { ETag: etagOf(revision) };
  throw new ApiProblem(
    'precondition-failed',
    `It was changed meanwhile and is at revision ${revision} now.`,
    { headers },
  );
}
