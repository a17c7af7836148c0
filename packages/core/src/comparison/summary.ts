import { findingKey, wholePath, type Contract, type Finding, type Operation } from '../contract/index.js';
import type { Aligned } from './types.js';

/** What comes and goes between two contracts, in a few lists. */
export interface ChangeSummary {
  /** Paths with the root at which no operation stood, in tree order. */
  readonly pathsAdded: readonly string[];
  readonly pathsRemoved: readonly string[];
  /** Operations by name. */
  readonly operationsAdded: readonly string[];
  readonly operationsRemoved: readonly string[];
  /** Operations of another name at the address they had. */
  readonly operationsRenamed: readonly { readonly was: string; readonly is: string }[];
  readonly findingsAdded: readonly Finding[];
  readonly findingsRemoved: readonly Finding[];
}

/** The summary of what was aligned. Linear. */
export function summarise({ before, after, pairs, added, removed }: Aligned): ChangeSummary {
  const stayed = new Set(pairs.map(({ resourceAfter }) => resourceAfter.id));
  const stood = new Set(pairs.map(({ resourceBefore }) => resourceBefore.id));
  const [namesBefore, namesAfter] = [namesOf(before.contract), namesOf(after.contract)];
  return {
    pathsAdded: pathsOf(after.contract, added, stayed),
    pathsRemoved: pathsOf(before.contract, removed, stood),
    operationsAdded: [...namesOf({ operations: added })].filter((name) => !namesBefore.has(name)),
    operationsRemoved: [...namesOf({ operations: removed })].filter((name) => !namesAfter.has(name)),
    operationsRenamed: pairs.flatMap(({ before: { id: was }, after: { id: is } }) =>
      was === is || namesAfter.has(was) || namesBefore.has(is) ? [] : [{ was, is }],
    ),
    findingsAdded: findingsWithout(after.contract, before.contract),
    findingsRemoved: findingsWithout(before.contract, after.contract),
  };
}

const namesOf = ({ operations }: Pick<Contract, 'operations'>): ReadonlySet<string> =>
  new Set(operations.map(({ id }) => id));

function pathsOf(
  contract: Contract,
  operations: readonly Operation[],
  known: ReadonlySet<string>,
): readonly string[] {
  const resources = new Set(operations.map(({ resource }) => resource));
  return [...resources].filter((id) => !known.has(id)).map((id) => wholePath(contract, id));
}

function findingsWithout(from: Contract, others: Contract): readonly Finding[] {
  const known = new Set(others.findings.map(findingKey));
  return from.findings.filter((finding) => !known.has(findingKey(finding)));
}
