import type { Response } from 'express';
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

/** Gives an answer the entity tag of the revision it shows. */
export function withETag<T extends { readonly revision: number }>(shown: T, response: Response): T {
  response.setHeader('ETag', etagOf(shown.revision));
  return shown;
}
