import { randomBytes } from 'node:crypto';
import {
  Draft,
  handle,
  problem,
  renderProblem,
  type EngineRequest,
  type EngineResponse,
  type Handled,
  type RowChange,
  type Runtime,
  type Service,
} from '@isomeros/core/engine';
import type { DurableDataset } from './durableDataset.js';

/** The clock and the dice of mocks. */
export const MOCK_RUNTIME: Runtime = {
  now: () => Date.now(),
  random: () => Math.random(),
  token: () => randomBytes(32).toString('base64url'),
  clock: () => performance.now(),
};

/** The records that are written to, and how many there may be. */
export interface RecordsWithLimit {
  readonly records: DurableDataset;
  /** More than these are not added by requests. */
  readonly mostRecords: number;
}

/**
 * Handles a write on a draft, which keeps what it changes. Near the most records there may be, what would add more is tried
 * apart. `pending`: how many records more there are than are committed.
 */
export function handleWithin(
  service: Service,
  { records, mostRecords }: RecordsWithLimit,
  draft: Draft,
  request: EngineRequest,
  pending = growth(draft.changes),
): Handled {
  const room = mostRecords - records.dataset.size - pending;
  if (room > NEAR) return handle(service, draft, request, MOCK_RUNTIME);
  const trial = new Draft(draft);
  const handled = handle(service, trial, request, MOCK_RUNTIME);
  if (handled.response.status >= 400) return handled;
  if (growth(handled.changes) > Math.max(0, room)) {
    const found = problem(507, 'full', `A mock holds at most ${mostRecords} records; remove some first.`);
    return { ...stoppedWith(found.detail, renderProblem(service.contract, found)), problem: found };
  }
  draft.merge(handled.changes, trial.numbers);
  if (handled.kept !== null) draft.keep(handled.kept);
  return handled;
}

/** A request that was answered before it came to the contract. */
export const stoppedWith = (text: string, response: EngineResponse): Handled => ({
  response,
  shown: null,
  problem: null,
  operation: null,
  trace: [{ step: 'answer', outcome: 'stopped', text }],
  times: [],
  changes: [],
  kept: null,
  tokens: [],
});

/** So many records at once a request adds at most without being tried apart. */
const NEAR = 10_000;

/** How many records more there are after some changes. */
export const growth = (changes: readonly RowChange[]): number =>
  changes.reduce((sum, { kind }) => sum + (kind === 'add' ? 1 : kind === 'remove' ? -1 : 0), 0);
