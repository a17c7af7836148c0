import type { Contract, ContractIndex, Operation, Reasons, Resource } from '../contract/index.js';

/**
 * How much a change matters to who relies on the earlier contract. `breaking`: a request it accepts is refused,
 * or means something else, or an answer no longer fits what it publishes. `compatible`: there is more than
 * before. `cosmetic`: nothing of it travels.
 */
export type Compatibility = 'breaking' | 'compatible' | 'cosmetic';

/** Who a breaking change breaks: a client that sends something, one that reads an answer, or one that follows links. */
export type AffectedParty = 'sender' | 'reader' | 'follower';

/** Several of them, as a sentence names them. */
export const PARTIES: Readonly<Record<AffectedParty, string>> = {
  sender: 'senders',
  reader: 'readers',
  follower: 'who follows links',
};

/** One difference between two contracts, as clients meet it. */
export interface ContractChange {
  readonly compatibility: Compatibility;
  readonly affects: AffectedParty | null;
  /** What is another now, in a sentence. */
  readonly message: string;
  /** What it is about: `GET /api/v1/routes`, the name of a shape, or the whole contract. */
  readonly where: string;
  /** The resource of the later contract it is about, or what is left above it; the entry for the whole. */
  readonly resource: string;
  /** Why the part of the later contract is as it is; of the earlier one, where it is gone. */
  readonly reasons: Reasons;
}

export interface IndexedContract {
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
  readonly before: IndexedContract;
  readonly after: IndexedContract;
  readonly pairs: readonly Pair[];
  /** Operations whose address is not there any more. */
  readonly removed: readonly Operation[];
  /** Operations at an address that was not there. */
  readonly added: readonly Operation[];
}

/** One rule: it tells the changes of one kind. */
export type ComparisonRule = (aligned: Aligned) => Iterable<ContractChange>;
