import type { Contract } from './types.js';

/** What of one contract is not in another, as clients see it. */
export interface ContractDifference {
  /** Paths with the root, in tree order. */
  readonly appear: readonly string[];
  readonly disappear: readonly string[];
  /** Operations by name. */
  readonly operationsAppear: readonly string[];
  readonly operationsDisappear: readonly string[];
}

/** Compares what two contracts offer. Linear in both. */
export function differenceOf(before: Contract, after: Contract): ContractDifference {
  const [pathsBefore, pathsAfter] = [pathsOf(before), pathsOf(after)];
  const [operationsBefore, operationsAfter] = [operationsOf(before), operationsOf(after)];
  return {
    appear: without(pathsAfter, pathsBefore),
    disappear: without(pathsBefore, pathsAfter),
    operationsAppear: without(operationsAfter, operationsBefore),
    operationsDisappear: without(operationsBefore, operationsAfter),
  };
}

const pathsOf = ({ root, resources }: Contract): ReadonlySet<string> =>
  new Set(resources.map(({ path }) => root + path));

const operationsOf = ({ operations }: Contract): ReadonlySet<string> =>
  new Set(operations.map(({ id }) => id));

const without = (names: ReadonlySet<string>, others: ReadonlySet<string>): readonly string[] =>
  [...names].filter((name) => !others.has(name));
