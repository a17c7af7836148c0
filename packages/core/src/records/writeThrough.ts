import type { Draft, EngineRequest, Handled, Service } from '../engine/index.js';
import type { EditProblem, RecordEdit } from './edit.js';
import { editRequests } from './editRequests.js';

/** What is wanted of whoever handles the requests of edits. */
export interface EditRuntime {
  /** Milliseconds since 1970. */
  readonly now: number;
  /** Nobody has used it before (Idempotency-Key). */
  readonly key: string;
  /** Handles one request on the draft, which keeps what it changes. */
  readonly handle: (request: EngineRequest) => Pick<Handled, 'problem' | 'response'>;
}

/**
 * Writes edits through a contract, one after the other, each by the requests a client would send. All of them are tried,
 * so that everything that is wrong is told at once; where anything is, nothing of the draft is to be kept.
 */
export function writeThrough(
  service: Service,
  draft: Draft,
  edits: readonly RecordEdit[],
  { now, key, handle }: EditRuntime,
): readonly EditProblem[] {
  return edits.flatMap((edit, index): readonly EditProblem[] => {
    const wanted = editRequests(service, draft, edit, now, `${key}-${index}`);
    if (!wanted.ok) return wanted.problems.map((problem) => ({ ...problem, edit: index }));
    for (const { make, problems } of wanted.requests) {
      const { problem, response } = handle(make());
      if (problem !== null) return problems(problem).map((one) => ({ ...one, edit: index }));
      if (response.status >= 400)
        return [{ edit: index, column: null, status: response.status, message: 'The mock failed inside.' }];
    }
    return [];
  });
}
