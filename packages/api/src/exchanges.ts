import type { NamedExample } from '@isomeros/core/arrangement';
import type { NarrowingStep, NearMiss, RecordChange, RemovalNode, TraceStep } from '@isomeros/core/engine';
import type { Items, PageQuery } from './route.js';

/** A message as it travelled. */
export interface Message {
  /** Request line or status line, then header lines. */
  readonly head: string;
  readonly body: string;
  /** True when the body was longer than what is kept, or has been let go to save memory. */
  readonly cut: boolean;
  /** The bytes of a body that may hold a secret and could not be masked, so that nothing else of it is kept. */
  readonly withheld: number | null;
}

export interface ExchangeSummary {
  /** @TJS-type integer */
  readonly number: number;
  /** @format date-time */
  readonly at: string;
  /** The arrangement it was sent to, or release and a label. */
  readonly arrangement: string;
  readonly client: string;
  readonly method: string;
  readonly target: string;
  readonly operation: string | null;
  /** @TJS-type integer */
  readonly status: number;
  readonly milliseconds: number;
  /** Whether it is kept, whatever goes. */
  readonly pinned: boolean;
}

/** What is kept of the exchanges of a mock. */
export interface JournalState {
  /**
   * Exchanges with lower numbers were cleared, but for those that are pinned.
   * @TJS-type integer
   */
  readonly from: number;
  /**
   * In the database, compressed.
   * @TJS-type integer
   */
  readonly bytes: number;
  /**
   * How many could not be written to the database as fast as they came, since the server was started.
   * @TJS-type integer
   */
  readonly dropped: number;
}

/** Exchanges as other programs read them (HAR 1.2). */
export interface ExchangeArchive {
  readonly log: {
    readonly version: '1.2';
    readonly creator: { readonly name: string; readonly version: string };
    readonly pages: readonly unknown[];
    /** One for each exchange, oldest first. */
    readonly entries: readonly { readonly [name: string]: unknown }[];
  };
}

/** Which exchanges are looked for. */
export interface ExchangesQuery {
  /** The id of an operation. */
  readonly operation?: string;
  /** The class of the status (RFC 9110 §15), or cut where the connection was cut instead. */
  readonly status?: '1xx' | '2xx' | '3xx' | '4xx' | '5xx' | 'cut';
  /**
   * A part of the target.
   * @maxLength 500
   */
  readonly path?: string;
  /** The name that a client gives itself. */
  readonly client?: string;
  /**
   * The number of a record that it changed.
   * @minimum 1
   * @TJS-type integer
   */
  readonly record?: number;
}

/** A step of how an exchange was handled, with how long it took. */
export interface TimedStep extends TraceStep {
  /** `null` where it was not timed. */
  readonly milliseconds: number | null;
}

/** One request with its answer, and how it came to it. */
export interface Exchange extends ExchangeSummary {
  readonly request: Message;
  readonly response: Message;
  /** Whether a page was sent to a browser; the body is that of the resource which it shows. */
  readonly page: boolean;
  readonly trace: readonly TimedStep[];
  /** Which operations each part of its target, and then its method, left possible. */
  readonly narrowing: readonly NarrowingStep[];
  /** Other operations it might have been meant for. */
  readonly nearMisses: readonly NearMiss[];
  readonly records: readonly RecordChange[];
  /** Where it removed several records: how they hang together, counted. */
  readonly removed: readonly RemovalNode[];
}

/** What can be done with the exchanges of a mock. */
export interface ExchangeRoutes {
  /** List the exchanges of a mock, or those that are looked for, newest first */
  'GET /api/mocks/{id}/exchanges': {
    readonly query: ExchangesQuery & PageQuery;
    readonly answer: Items<ExchangeSummary>;
    readonly headers: 'Link';
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Forget all exchanges but those that are pinned */
  'DELETE /api/mocks/{id}/exchanges': {
    readonly status: 204;
    readonly problems: 'not-found' | 'unavailable';
  };
  /** Export exchanges, or those that are looked for, as an archive (HAR 1.2) */
  'GET /api/mocks/{id}/har': {
    readonly query: ExchangesQuery;
    readonly answer: ExchangeArchive;
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Keep an exchange, whatever goes */
  'PUT /api/mocks/{id}/exchanges/{number}/pin': {
    readonly status: 204;
    readonly problems: 'not-found' | 'conflict';
  };
  /** Let go of a pinned exchange */
  'DELETE /api/mocks/{id}/exchanges/{number}/pin': {
    readonly status: 204;
    readonly problems: 'not-found';
  };
  /** Read one exchange with its trace */
  'GET /api/mocks/{id}/exchanges/{number}': { readonly answer: Exchange; readonly problems: 'not-found' };
  /** Read one exchange as an example: its request with the records it needs, without secrets */
  'GET /api/mocks/{id}/exchanges/{number}/example': {
    readonly answer: NamedExample;
    readonly problems: 'not-found' | 'conflict';
  };
}
