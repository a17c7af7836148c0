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

/** Writes problem details (RFC 9457). */
export function sendProblem(response: Response, { kind, detail, more }: ApiProblem): void {
  const { status, title } = PROBLEM_KINDS[kind];
  for (const [name, value] of Object.entries(more.headers ?? {})) response.setHeader(name, value);
  const errors = more.errors === undefined || more.errors.length === 0 ? {} : { errors: more.errors };
  const body: ProblemBody = { type: `/api/problems#${kind}`, title, status, detail, ...errors };
  response
    .status(status)
    .type('application/problem+json')
    .setHeader('Cache-Control', 'no-store')
    .send(JSON.stringify({ ...body, ...more.members }));
}
