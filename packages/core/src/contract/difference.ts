import { indexContract } from './lookup.js';
import { findingKey, type Finding } from './review.js';
import type { Contract } from './types.js';

/** What of one contract is not in another, as clients see it. */
export interface ContractDifference {
  /** Paths with the root, in tree order. */
  readonly appear: readonly string[];
  readonly disappear: readonly string[];
  /** Operations by name; those that only have another name now are renamed. */
  readonly operationsAppear: readonly string[];
  readonly operationsDisappear: readonly string[];
  readonly operationsRenamed: readonly { readonly was: string; readonly is: string }[];
  readonly findingsAppear: readonly Finding[];
  readonly findingsDisappear: readonly Finding[];
}

/** Compares what two contracts offer. Linear in both. */
export function differenceOf(before: Contract, after: Contract): ContractDifference {
  const [pathsBefore, pathsAfter] = [pathsOf(before), pathsOf(after)];
  const [operationsBefore, operationsAfter] = [operationsOf(before), operationsOf(after)];
  const operationsRenamed = renamed(before, after, operationsBefore, operationsAfter);
  const [were, are] = [
    new Set(operationsRenamed.map(({ was }) => was)),
    new Set(operationsRenamed.map(({ is }) => is)),
  ];
  return {
    appear: without(pathsAfter, pathsBefore),
    disappear: without(pathsBefore, pathsAfter),
    operationsAppear: without(operationsAfter, operationsBefore).filter((id) => !are.has(id)),
    operationsDisappear: without(operationsBefore, operationsAfter).filter((id) => !were.has(id)),
    operationsRenamed,
    findingsAppear: findingsWithout(after, before),
    findingsDisappear: findingsWithout(before, after),
  };
}

const pathsOf = ({ root, resources }: Contract): ReadonlySet<string> =>
  new Set(resources.map(({ path }) => root + path));

const operationsOf = ({ operations }: Contract): ReadonlySet<string> =>
  new Set(operations.map(({ id }) => id));

const without = (names: ReadonlySet<string>, others: ReadonlySet<string>): readonly string[] =>
  [...names].filter((name) => !others.has(name));

/** Operations at the same address that have another name. */
function renamed(
  before: Contract,
  after: Contract,
  namesBefore: ReadonlySet<string>,
  namesAfter: ReadonlySet<string>,
): ContractDifference['operationsRenamed'] {
  const names = new Map([...addresses(before)].map(([id, address]) => [address, id]));
  return [...addresses(after)].flatMap(([is, address]) => {
    const was = names.get(address);
    if (was === undefined || was === is || namesAfter.has(was) || namesBefore.has(is)) return [];
    return [{ was, is }];
  });
}

function* addresses(contract: Contract): Generator<[id: string, address: string]> {
  const { resources } = indexContract(contract);
  for (const { id, method, resource } of contract.operations)
    yield [id, `${method} ${contract.root}${resources.get(resource)?.path ?? ''}`];
}

function findingsWithout(from: Contract, others: Contract): readonly Finding[] {
  const known = new Set(others.findings.map(findingKey));
  return from.findings.filter((finding) => !known.has(findingKey(finding)));
}
