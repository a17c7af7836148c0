import type { Contract, ContractIndex, Operation, Reasons, Resource } from '../contract/index.js';

/**
 * How much a change matters to who relies on the earlier contract. `breaking`: a request it accepts is refused,
 * or means something else, or an answer no longer fits what it publishes. `compatible`: there is more than
 * before. `cosmetic`: nothing of it travels.
 */
export type Weight = 'breaking' | 'compatible' | 'cosmetic';

/** Who a breaking change breaks: a client that sends something, or one that reads an answer. */
export type Broken = 'sender' | 'reader';

/** One difference between two contracts, as clients meet it. */
export interface Change {
  readonly weight: Weight;
  readonly breaks: Broken | null;
  /** What is another now, in a sentence. */
  readonly message: string;
  /** What it is about: `GET /api/v1/routes`, the name of a shape, or the whole contract. */
  readonly where: string;
  /** The resource of the later contract it is about, or what is left above it; the entry for the whole. */
  readonly resource: string;
  /** Why the part of the later contract is as it is; of the earlier one, where it is gone. */
  readonly reasons: Reasons;
}

export interface Side {
  readonly contract: Contract;
  readonly index: ContractIndex;
}

/** An operation that both contracts have at one address, whatever it is called. */
export interface Pair {
  readonly before: Operation;
  readonly after: Operation;
  readonly resourceBefore: Resource;
  readonly resourceAfter: Resource;
  /** The address in the later contract: `GET /api/v1/routes/{routeId}`. */
  readonly where: string;
}

/** Two contracts with what stands at the same address in both. */
export interface Aligned {
  readonly before: Side;
  readonly after: Side;
  readonly pairs: readonly Pair[];
  /** Operations whose address is not there any more. */
  readonly gone: readonly Operation[];
  /** Operations at an address that was not there. */
  readonly come: readonly Operation[];
}

/** One rule: it tells the changes of one kind. */
export type Comparison = (aligned: Aligned) => Iterable<Change>;
