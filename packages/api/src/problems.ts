import type { MigrationStep } from '@isomeros/core/migration';
import type { Diagnostic } from '@isomeros/core/notation';

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
  unsound: { status: 422, title: 'Model not valid' },
  unexpected: { status: 500, title: 'Something went wrong inside' },
  database: { status: 502, title: 'The other database did not answer as asked' },
  unavailable: { status: 503, title: 'Not now' },
} as const satisfies Record<string, { status: number; title: string }>;

export type ProblemKind = keyof typeof PROBLEM_KINDS;

/** One thing that is wrong with a request. */
export interface ProblemError {
  /** Where in the body (RFC 6901). */
  readonly pointer?: string;
  /** The name of a query parameter. */
  readonly parameter?: string;
  readonly code: string;
  readonly message: string;
}

/** Problem details (RFC 9457). */
export interface ProblemBody {
  /** @format uri-reference */
  readonly type: string;
  readonly title: string;
  readonly status: number;
  /** What is wrong, and what was expected. */
  readonly detail: string;
  readonly errors?: readonly ProblemError[];
  /** What is wrong with a model, where that is the problem. */
  readonly diagnostics?: readonly Diagnostic[];
  /** What is still open of a migration, where that is the problem. */
  readonly steps?: readonly MigrationStep[];
}
