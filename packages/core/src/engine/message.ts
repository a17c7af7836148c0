import type { ProblemCode } from '../contract/index.js';
import type { Json } from '../model/index.js';

/** A request as the engine sees it. Names of headers are in lower case. */
export interface EngineRequest {
  readonly method: string;
  /** Origin-form: path and query, as sent (RFC 9112 §3.2.1). */
  readonly target: string;
  readonly headers: ReadonlyMap<string, string>;
  readonly body: RequestBody;
}

export type RequestBody =
  | { readonly kind: 'none' }
  | { readonly kind: 'text'; readonly text: string; readonly bytes: number }
  /** In a content coding that is not read. */
  | { readonly kind: 'coded'; readonly coding: string }
  /** Bytes that are not UTF-8, or not in the coding they are said to be in. */
  | { readonly kind: 'unreadable' }
  /** More bytes than are read. */
  | { readonly kind: 'too-large' };

export type Header = readonly [name: string, value: string];

export interface EngineResponse {
  readonly status: number;
  readonly headers: readonly Header[];
  /** `null` where no body is sent: 204, and answers to HEAD. */
  readonly body: string | null;
}

export type StepName =
  | 'target'
  | 'match'
  | 'authenticate'
  | 'locate'
  | 'authorise'
  | 'negotiate'
  | 'query'
  | 'conditions'
  | 'body'
  | 'store'
  | 'apply'
  | 'represent'
  | 'answer';

/** One step of how an exchange was handled, in a sentence. */
export interface TraceStep {
  readonly step: StepName;
  readonly outcome: 'passed' | 'stopped';
  readonly text: string;
}

/** One error inside a problem: where it is, a stable code, and what was expected. */
export type ProblemDetail = { readonly code: string; readonly message: string } & (
  { readonly pointer: string } | { readonly parameter: string }
);

/** An answer that is not a success: problem details (RFC 9457) before they are rendered. */
export interface Problem {
  readonly status: number;
  readonly code: ProblemCode;
  readonly detail: string;
  readonly errors: readonly ProblemDetail[];
  readonly headers: readonly (readonly [string, string])[];
}

/** What a body or a query is made of, once it passed. */
export type Members = Readonly<Record<string, Json>>;
