import type { Operation } from '../contract/index.js';
import { digestOf } from './digest.js';
import type { EngineRequest, EngineResponse, Problem } from './message.js';
import { problem } from './problem.js';
import { statusFor, type RequestContext } from './service.js';

/** So long an answer is kept for requests that are sent again. */
export const KEEP_RESPONSES_MS = 24 * 60 * 60 * 1000;

/** The first answer to a request with an Idempotency-Key, as it is stored with what the request wrote. */
export interface IdempotentResponse {
  /** Who sent it, to which operation, under which key. */
  readonly id: string;
  /** Of the target and the body: another request may not have the same key. */
  readonly fingerprint: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly response: EngineResponse;
}

/** The answers of a dataset, by their id. */
export class IdempotentResponses {
  private readonly byId = new Map<string, IdempotentResponse>();

  constructor(kept: Iterable<IdempotentResponse> = []) {
    this.add(kept);
  }

  /** The answer, unless it is too old to be given again. */
  get(id: string, now: number): IdempotentResponse | undefined {
    const kept = this.byId.get(id);
    return kept === undefined || kept.at + KEEP_RESPONSES_MS <= now ? undefined : kept;
  }

  /** In the order they came in. */
  all(): Iterable<IdempotentResponse> {
    return this.byId.values();
  }

  /** Adds answers, and forgets those that are too old by then: they stand in the order they came in. */
  add(answers: Iterable<IdempotentResponse>): void {
    for (const answer of answers) {
      this.byId.delete(answer.id);
      this.byId.set(answer.id, answer);
      for (const [id, { at }] of this.byId) {
        if (at + KEEP_RESPONSES_MS > answer.at) break;
        this.byId.delete(id);
      }
    }
  }
}

/** What an Idempotency-Key of a request comes to. */
export type Keyed =
  /** There is none, or none that counts. */
  | { readonly kind: 'none' }
  | { readonly kind: 'first'; readonly id: string; readonly fingerprint: string }
  | { readonly kind: 'again'; readonly answer: IdempotentResponse }
  | { readonly kind: 'refused'; readonly problem: Problem };

/** Where answers are looked up: committed ones, and those of writes that are still being committed. */
export interface AnswerView {
  answerTo(id: string, now: number): IdempotentResponse | 'pending' | undefined;
}

/** A text in quotes (RFC 9651 §3.3.3), or a bare one, of at most 255 characters. */
const KEY = /^(?:"([ !#-[\]-~]{1,255})"|([!#-~]{1,255}))$/;

const EXPECTED_KEY =
  'Expected an Idempotency-Key: a text of 1 to 255 characters in quotes, made anew for each request.';

/** Reads the Idempotency-Key of a request, and what was answered to it before. */
export function readKey(
  view: AnswerView,
  operation: Operation,
  request: EngineRequest,
  who: { readonly name: string } | null,
  { name, now }: Pick<RequestContext, 'name' | 'now'>,
): Keyed {
  const header = request.headers.get('idempotency-key');
  if (operation.idempotency === 'ignored') return { kind: 'none' };
  const [, quoted, bare] = KEY.exec(header?.trim() ?? '') ?? [];
  const key = quoted ?? bare;
  if (key === undefined) {
    if (header === undefined && operation.idempotency === 'honoured') return { kind: 'none' };
    const code = operation.idempotency === 'required' ? 'key-missing' : 'bad-parameter';
    return refuse(problem(statusFor(operation, code), code, EXPECTED_KEY));
  }
  const asked = [name ?? null, who?.name ?? null, operation.resource, operation.verb, key];
  const id = digestOf(JSON.stringify(asked));
  const { body } = request;
  const fingerprint = digestOf(
    JSON.stringify([request.target, body.kind === 'text' ? body.text : body.kind]),
  );
  const before = view.answerTo(id, now);
  if (before === undefined) return { kind: 'first', id, fingerprint };
  if (before === 'pending') {
    const detail = 'An earlier request with this Idempotency-Key is still being carried out.';
    return refuse(problem(statusFor(operation, 'key-busy'), 'key-busy', detail, [], [['Retry-After', '1']]));
  }
  if (before.fingerprint === fingerprint) return { kind: 'again', answer: before };
  const detail = 'This Idempotency-Key was used for a request with another target or body.';
  return refuse(problem(statusFor(operation, 'key-reused'), 'key-reused', detail));
}

const refuse = (found: Problem): Keyed => ({ kind: 'refused', problem: found });
