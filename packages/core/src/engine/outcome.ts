import type { Operation, Resource } from '../contract/index.js';
import type { Json } from '../model/index.js';
import type { Caller } from './access.js';
import type { RowChange } from './dataset.js';
import type { Location } from './locate.js';
import type { EngineResponse, Problem, ProblemDetail, StepName } from './message.js';
import { problem } from './problem.js';
import { statusFor } from './service.js';
import type { TokenChange } from './accessTokens.js';

export interface WriteRequest {
  readonly resource: Resource;
  readonly operation: Operation;
  readonly location: Location;
  readonly body: Json;
  /** The media type of the body; empty where there is none. */
  readonly bodyType: string;
  /** The client wants no body in the answer (RFC 7240 §4.2), and that is honoured. */
  readonly isMinimal: boolean;
  /** Who sent it; `null` is anybody. */
  readonly who: Caller | null;
}

export type WriteOutcome =
  | {
      readonly ok: true;
      readonly response: EngineResponse;
      readonly changes: readonly RowChange[];
      readonly tokens?: readonly TokenChange[];
    }
  | Refused;

/** A write that is not carried out, and where that was found. */
export interface Refused {
  readonly ok: false;
  readonly step: StepName;
  readonly problem: Problem;
}

/** A write that ends at a step with a problem; nothing is changed. */
export const refuse = (step: StepName, found: Problem): Refused => ({ ok: false, step, problem: found });

/** A body that was read and does not fit; all errors at once. */
export function invalidBody(operation: Operation, errors: readonly ProblemDetail[]): Refused {
  const detail =
    errors.length === 1
      ? 'One thing in the body does not fit.'
      : `${errors.length} things in the body do not fit.`;
  return refuse('body', problem(statusFor(operation, 'invalid'), 'invalid', detail, errors));
}
