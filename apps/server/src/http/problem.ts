import type { ProblemDetail } from '@isomeros/core/engine';
import type { Response } from 'express';

/** Every kind of problem the application answers with, its status and its title. A retired code is never used again. */
export const PROBLEM_KINDS = {
  'bad-request': { status: 400, title: 'Request not readable' },
  invalid: { status: 400, title: 'Body does not fit' },
  'bad-parameter': { status: 400, title: 'Bad parameter' },
  unauthorized: { status: 401, title: 'Token wanted' },
  'foreign-origin': { status: 403, title: 'Foreign origin' },
  'not-found': { status: 404, title: 'Not there' },
  'method-not-allowed': { status: 405, title: 'Method not allowed' },
  'not-acceptable': { status: 406, title: 'Media type not offered' },
  conflict: { status: 409, title: 'Cannot be done now' },
  'precondition-failed': { status: 412, title: 'Changed meanwhile' },
  'too-large': { status: 413, title: 'Too large' },
  'media-type': { status: 415, title: 'Media type not accepted' },
  'foreign-host': { status: 421, title: 'Foreign host' },
  unsound: { status: 422, title: 'Model not sound' },
  unexpected: { status: 500, title: 'Something went wrong inside' },
  database: { status: 502, title: 'The other database did not answer as asked' },
  unavailable: { status: 503, title: 'Not now' },
} as const satisfies Record<string, { status: number; title: string }>;

export type ProblemKind = keyof typeof PROBLEM_KINDS;

/** An answer that is not a success. Thrown by handlers, rendered in one place. */
export class ApiProblem extends Error {
  constructor(
    readonly kind: ProblemKind,
    readonly detail: string,
    readonly more: {
      readonly errors?: readonly ProblemDetail[];
      readonly headers?: Readonly<Record<string, string>>;
      /** Members of the problem that only this kind has (RFC 9457 §3.2). */
      readonly members?: Readonly<Record<string, unknown>>;
    } = {},
  ) {
    super(detail);
  }
}

/** Writes problem details (RFC 9457). */
export function sendProblem(response: Response, { kind, detail, more }: ApiProblem): void {
  const { status, title } = PROBLEM_KINDS[kind];
  for (const [name, value] of Object.entries(more.headers ?? {})) response.setHeader(name, value);
  const errors = more.errors === undefined || more.errors.length === 0 ? {} : { errors: more.errors };
  response
    .status(status)
    .type('application/problem+json')
    .setHeader('Cache-Control', 'no-store')
    .send(
      JSON.stringify({ type: `/api/problems#${kind}`, title, status, detail, ...errors, ...more.members }),
    );
}
