import type { ReadResult } from '@isomeros/core/arrangement';
import { ApiProblem } from '../http/problem.js';

/** What was read of a body; a problem that names everything that does not fit. */
export function orThrow<T>({ value, problems }: ReadResult<T>): T {
  if (problems.length === 0) return value;
  throw new ApiProblem('invalid', problems[0]?.message ?? 'What was decided does not fit.', {
    errors: problems,
  });
}
