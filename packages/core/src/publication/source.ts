import type { Contract } from '../contract/index.js';
import type { Model } from '../model/index.js';

/** A request with its answer, secrets masked. */
export interface PublishedExample {
  /** Unique among the examples of its operation. */
  readonly name: string;
  readonly operation: string;
  readonly method: string;
  /** Path and query (RFC 9112 §3.2.1). */
  readonly target: string;
  /** Names in lower case. */
  readonly requestHeaders: ReadonlyMap<string, string>;
  readonly requestBody: string | null;
  readonly status: number;
  /** Names as they are sent. */
  readonly responseHeaders: readonly (readonly [name: string, value: string])[];
  readonly responseBody: string | null;
  /** Whether something in the body that is sent is masked, so that it may not fit what is accepted. */
  readonly isMasked: boolean;
}

/** A request to a mock with fresh seed records, in an order in which each of them succeeds. */
export interface PublishedCall {
  readonly operation: string;
  readonly method: string;
  /** Path and query, without the root of the contract in front. */
  readonly target: string;
  /** Names in lower case; credentials are none of them. */
  readonly headers: ReadonlyMap<string, string>;
  readonly body: string | null;
  readonly status: number;
  readonly credentials: CallCredentials;
  /** The member of the answer that holds a token for later calls; `null` where none does. */
  readonly handsOut: string | null;
}

/** What a call proves who it is from with: nothing, somebody the mock knows, or the token of an earlier answer. */
export type CallCredentials =
  { readonly kind: 'none' } | { readonly kind: 'known'; readonly who: string } | { readonly kind: 'token' };

/** The calls of a script, and the ids of the operations for which the seed records have no call that succeeds. */
export interface PublishedCalls {
  readonly calls: readonly PublishedCall[];
  readonly without: readonly string[];
}

/** What documents are written from. */
export interface PublicationSource {
  readonly contract: Contract;
  readonly model: Model;
  /** By the id of their operation. */
  readonly examples: () => ReadonlyMap<string, readonly PublishedExample[]>;
  readonly calls: () => PublishedCalls;
}

/** What is chosen for one document. */
export interface PublicationOptions {
  /** Where a mock serves it, to be named beside the other servers. */
  readonly mock: string | null;
}
