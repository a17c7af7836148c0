import { indexContract } from './lookup.js';
import type { Contract, Effect } from './types.js';

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

export function figuresOf(contract: Contract): ContractFigures {
  const count = (severity: 'error' | 'doubtful'): number =>
    contract.findings.filter((finding) => finding.severity === severity).length;
  return {
    paths: contract.resources.length,
    operations: contract.operations.length,
    findings: { error: count('error'), doubtful: count('doubtful') },
    assumptions: contract.assumptions.length,
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
