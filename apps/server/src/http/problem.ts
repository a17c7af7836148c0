import type { ProblemDetail } from '@isomeros/core/engine';
import { PROBLEM_KINDS, type ProblemBody, type ProblemKind } from '@isomeros/api';
import type { Response } from 'express';

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

/** Problem details (RFC 9457). */
export function problemBody({ kind, detail, more }: ApiProblem): ProblemBody {
  const { status, title } = PROBLEM_KINDS[kind];
  const errors = more.errors === undefined || more.errors.length === 0 ? {} : { errors: more.errors };
  return { type: `/api/problems#${kind}`, title, status, detail, ...errors, ...more.members };
}

/** Writes problem details (RFC 9457). */
export function sendProblem(response: Response, problem: ApiProblem): void {
  for (const [name, value] of Object.entries(problem.more.headers ?? {})) response.setHeader(name, value);
  const body = problemBody(problem);
  response
    .status(body.status)
    .type('application/problem+json')
    .setHeader('Cache-Control', 'no-store')
    .send(JSON.stringify(body));
}
