import { indexContract } from './lookup.js';
import type { Assumption } from './review.js';
import type { Effect } from './operation.js';
import type { Contract } from './types.js';

/** What a contract amounts to, in numbers. */
export interface ContractFigures {
  readonly paths: number;
  readonly operations: number;
  readonly findings: { readonly error: number; readonly doubtful: number };
  readonly assumptions: number;
}

/** A column of the drawn fingerprint: the effects of a path's operations, and how deep it lies. */
export interface FingerprintColumn {
  readonly effects: readonly Effect[];
  readonly depth: number;
}

/** The assumptions that nobody has answered yet. */
export function openAssumptions(
  contract: Pick<Contract, 'assumptions'>,
  answered: readonly string[],
): readonly Assumption[] {
  const known = new Set(answered);
  return contract.assumptions.filter(({ id, settled }) => !settled && !known.has(id));
}

/** `answered` names the assumptions that somebody agreed to. */
export function figuresOf(contract: Contract, answered: readonly string[]): ContractFigures {
  const count = (severity: 'error' | 'doubtful'): number =>
    contract.findings.filter((finding) => finding.severity === severity).length;
  return {
    paths: contract.resources.length,
    operations: contract.operations.length,
    findings: { error: count('error'), doubtful: count('doubtful') },
    assumptions: openAssumptions(contract, answered).length,
  };
}

/** The path tree as it is drawn small: one column a path, in tree order. */
export function fingerprintOf(contract: Contract): readonly FingerprintColumn[] {
  const { operationsOf } = indexContract(contract);
  return contract.resources.map((resource) => ({
    effects: (operationsOf.get(resource.id) ?? []).map((operation) => operation.effect),
    depth: resource.segments.length,
  }));
}
