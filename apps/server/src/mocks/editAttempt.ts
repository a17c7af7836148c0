import {
  Draft,
  keepChanges,
  type EngineRequest,
  type Handled,
  type KeptChange,
  type Service,
} from '@isomeros/core/engine';
import { writeThrough, type EditProblem, type RecordEdit } from '@isomeros/core/records';
import type { Head } from '@isomeros/listener';
import type { Written } from './durableDataset.js';
import { growth, handleWithin, MOCK_RUNTIME, type RecordsWithLimit } from './handleWithin.js';
import { OWN_CLIENT } from './ownClient.js';

/** A request of an edit, as it was handled. */
export interface EditExchange {
  readonly request: EngineRequest;
  readonly handled: Handled;
  readonly records: readonly KeptChange[];
  /** By the clock of the mock. */
  readonly started: number;
  readonly ended: number;
}

export interface EditsAttempt extends Written {
  readonly exchanges: readonly EditExchange[];
  readonly problems: readonly EditProblem[];
}

/** Tries edits by requests through a contract, all of them or none. The draft takes over what they change. */
export function attemptEdits(
  service: Service,
  limited: RecordsWithLimit,
  port: number,
  draft: Draft,
  edits: readonly RecordEdit[],
): EditsAttempt {
  const trial = new Draft(draft);
  const exchanges: EditExchange[] = [];
  const problems = writeThrough(service, trial, edits, {
    now: MOCK_RUNTIME.now(),
    key: MOCK_RUNTIME.token(),
    handle: (bare) => {
      const started = performance.now();
      const request = asOwn(bare, port);
      const inner = new Draft(trial);
      const pending = growth(draft.changes) + growth(trial.changes);
      const handled = handleWithin(service, limited, inner, request, pending);
      const isDone = handled.response.status < 400;
      const records = isDone ? keepChanges(service.model, trial, inner, handled.changes) : [];
      if (isDone) trial.merge(handled.changes, inner.numbers);
      exchanges.push({ request, handled, records, started, ended: performance.now() });
      return handled;
    },
  });
  if (problems.length === 0) draft.merge(trial.changes, trial.numbers);
  return { exchanges, problems, changes: trial.changes, kept: null, tokens: [] };
}

/** A request as this application sends it itself. */
const asOwn = (request: EngineRequest, port: number): EngineRequest => ({
  ...request,
  headers: new Map([['host', `127.0.0.1:${port}`], ['user-agent', OWN_CLIENT], ...request.headers]),
});

/** A request as if it had travelled (RFC 9112 §3). */
export const headOf = ({ target, headers }: EngineRequest): Head => ({
  target,
  version: 'HTTP/1.1',
  headers: [...headers].flat(),
  problem: null,
});
