import { operationKey } from '../arrangement/index.js';
import type { Operation } from './operation.js';
import { withOperationNames } from './operationLinks.js';

/** What operations are called now, by what outlives that, and the way back. */
export interface OperationNaming {
  readonly idOf: ReadonlyMap<string, string>;
  readonly keyOf: ReadonlyMap<string, string>;
  /** A kept text with the names of now. */
  readonly named: (text: string) => string;
}

export function operationNaming(operations: readonly Operation[]): OperationNaming {
  const idOf = new Map(operations.map(({ id, resource, verb }) => [operationKey(resource, verb), id]));
  return {
    idOf,
    keyOf: new Map([...idOf].map(([key, id]) => [id, key])),
    named: (text) => withOperationNames(text, (key) => idOf.get(key)),
  };
}
