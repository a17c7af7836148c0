import { indexContract, type Contract, type Effect } from '@isomeros/core/contract';
import { indexModel, type Identities, type Model } from '@isomeros/core/model';
import type { Diagnostic } from '@isomeros/core/notation';

/** A column of the drawn fingerprint: the effects of a path's operations, and how deep it lies. */
export interface FingerprintColumn {
  readonly effects: readonly Effect[];
  readonly depth: number;
}

/** What a design amounts to, in numbers. */
export interface DesignFigures {
  readonly entities: number;
  readonly relationships: number;
  readonly paths: number;
  readonly operations: number;
  readonly findings: { readonly error: number; readonly doubtful: number };
  readonly assumptions: number;
}

/** A design as a list shows it. */
export interface DesignSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly createdAt: string;
  readonly changedAt: string;
  readonly arrangements: readonly { readonly name: string }[];
  /** Whether the saved text has no errors; figures are those of the last sound one. */
  readonly sound: boolean;
  readonly figures: DesignFigures;
  readonly fingerprint: readonly FingerprintColumn[];
}

/** A design with its model. */
export interface DesignView extends DesignSummary {
  readonly text: string;
  readonly identities: Identities;
  readonly diagnostics: readonly Diagnostic[];
}

export function figuresOf(model: Model, contract: Contract): DesignFigures {
  const { entities, relationships } = indexModel(model);
  const count = (severity: 'error' | 'doubtful'): number =>
    contract.findings.filter((finding) => finding.severity === severity).length;
  return {
    entities: entities.size,
    relationships: relationships.length,
    paths: contract.resources.length,
    operations: contract.operations.length,
    findings: { error: count('error'), doubtful: count('doubtful') },
    assumptions: contract.assumptions.length,
  };
}

export function fingerprintOf(contract: Contract): readonly FingerprintColumn[] {
  const { operationsOf } = indexContract(contract);
  return contract.resources.map((resource) => ({
    effects: (operationsOf.get(resource.id) ?? []).map((operation) => operation.effect),
    depth: resource.segments.length,
  }));
}
