import type { EngineResponse } from './message.js';
import { problem, renderProblem, type ProblemPages } from './problem.js';

/** How long an answer is held back, in milliseconds. */
export type Latency =
  | { readonly kind: 'fixed'; readonly ms: number }
  | { readonly kind: 'uniform'; readonly from: number; readonly to: number }
  | { readonly kind: 'normal'; readonly mean: number; readonly deviation: number };

/** A failure that some requests meet instead of an answer. */
export interface Failure {
  readonly status: 429 | 500 | 502 | 503 | 504;
  /** How many of all requests, from 0 to 1. */
  readonly rate: number;
}

/** What goes wrong on purpose: for one operation, or for all. */
export interface FaultRule {
  /** The id of an operation; all of them where it is left out. */
  readonly operation?: string;
  readonly latency?: Latency;
  readonly failures?: readonly Failure[];
  /** How many connections are cut instead of answered, from 0 to 1. */
  readonly drop?: number;
  /** How fast bodies of answers are sent. */
  readonly bytesPerSecond?: number;
}

/** No answer is held back for longer. */
export const LONGEST_MS = 60_000;

/** What becomes of one request. */
export interface FaultOutcome {
  readonly delay: number;
  /** How fast the body of the answer is sent, in bytes a second; `null` for as fast as can be. */
  readonly pace: number | null;
  readonly outcome:
    | { readonly kind: 'answer' }
    | { readonly kind: 'drop' }
    | { readonly kind: 'fail'; readonly status: Failure['status'] };
}

/**
 * Throws the dice for one request: what is told for its operation holds before what is told for all. The same
 * numbers give the same fates, so that a run can be repeated.
 */
export function drawOutcome(
  troubles: readonly FaultRule[],
  operation: string | null,
  random: () => number,
): FaultOutcome {
  const trouble =
    troubles.find((one) => one.operation !== undefined && one.operation === operation) ??
    troubles.find((one) => one.operation === undefined);
  if (trouble === undefined) return { delay: 0, pace: null, outcome: { kind: 'answer' } };
  const delay = trouble.latency === undefined ? 0 : delayOf(trouble.latency, random);
  const pace = trouble.bytesPerSecond ?? null;
  let thrown = random();
  thrown -= trouble.drop ?? 0;
  if (thrown < 0) return { delay, pace, outcome: { kind: 'drop' } };
  for (const { status, rate } of trouble.failures ?? []) {
    thrown -= rate;
    if (thrown < 0) return { delay, pace, outcome: { kind: 'fail', status } };
  }
  return { delay, pace, outcome: { kind: 'answer' } };
}

function delayOf(latency: Latency, random: () => number): number {
  switch (latency.kind) {
    case 'fixed':
      return within(latency.ms);
    case 'uniform':
      return within(latency.from + random() * (latency.to - latency.from));
    case 'normal': {
      // Box and Muller: two even numbers give one from the bell curve.
      const bell = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
      return within(latency.mean + bell * latency.deviation);
    }
  }
}

const within = (ms: number): number => Math.min(LONGEST_MS, Math.max(0, Math.round(ms)));

/** The answer of a failure that is simulated; it says so. */
export function simulatedFailure(pages: ProblemPages, status: Failure['status']): EngineResponse {
  const detail = 'This failure is simulated: the mock was told to fail so for some requests.';
  const isLater = status === 429 || status === 503;
  return renderProblem(
    pages,
    problem(status, 'simulated', detail, [], isLater ? [['Retry-After', '1']] : []),
  );
}
