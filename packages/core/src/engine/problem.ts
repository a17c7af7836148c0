import { noteOn, PROBLEMS, type Contract, type ProblemCode } from '../contract/index.js';
import type { EngineResponse, Problem, ProblemDetail } from './message.js';

export function problem(
  status: number,
  code: ProblemCode,
  detail: string,
  errors: readonly ProblemDetail[] = [],
  headers: Problem['headers'] = [],
): Problem {
  return { status, code, detail, errors, headers };
}

/** The path of the page that documents a kind of problem, under the root of the contract. */
export const problemPath = (root: string, code: ProblemCode): string => `${root}/-/problems/${code}`;

/** What problems are rendered by: where their types are told of, and what is said of them. */
export type ProblemPages = Pick<Contract, 'root' | 'documentation'>;

/** What a kind of problem is called, and what its page tells. */
export const problemTexts = (
  pages: ProblemPages,
  code: ProblemCode,
): { readonly title: string; readonly about: string } => {
  const said = noteOn(pages, 'problem', code);
  const { title, about } = PROBLEMS[code];
  return { title: said?.title ?? title, about: said?.description ?? about };
};

/** Renders problem details (RFC 9457 §3). */
export function renderProblem(pages: ProblemPages, found: Problem): EngineResponse {
  const body = JSON.stringify({
    type: problemPath(pages.root, found.code),
    title: problemTexts(pages, found.code).title,
    status: found.status,
    detail: found.detail,
    ...(found.errors.length === 0 ? {} : { errors: found.errors }),
  });
  return {
    status: found.status,
    headers: [['Content-Type', 'application/problem+json'], ['Cache-Control', 'no-store'], ...found.headers],
    body,
  };
}
