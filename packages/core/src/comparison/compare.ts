import type { Contract } from '../contract/index.js';
import { align } from './align.js';
import { compareAddresses } from './rules/addresses.js';
import { compareBodies } from './rules/bodies.js';
import { compareDemands } from './rules/demands.js';
import { compareDocumentation } from './rules/documentation.js';
import { compareEffects } from './rules/effects.js';
import { compareLinks } from './rules/links.js';
import { compareParameters } from './rules/parameters.js';
import { compareRepresentations } from './rules/representations.js';
import { compareStatuses } from './rules/statuses.js';
import { summarise, type ChangeSummary } from './summary.js';
import type { ContractChange, ComparisonRule, Compatibility } from './types.js';

const RULES: readonly ComparisonRule[] = [
  compareAddresses,
  compareEffects,
  compareParameters,
  compareBodies,
  compareStatuses,
  compareDemands,
  compareRepresentations,
  compareLinks,
  compareDocumentation,
];

const ORDER: readonly Compatibility[] = ['breaking', 'compatible', 'cosmetic'];

/** A contract that can be compared with any other: what an arrangement implies, a release, or what was not saved yet. */
export type ComparedContract =
  | { readonly kind: 'arrangement'; readonly name: string; readonly contract: Contract }
  | { readonly kind: 'release'; readonly label: string; readonly contract: Contract }
  | { readonly kind: 'draft'; readonly contract: Contract };

/** How one contract differs from another, as clients meet it. */
export interface ContractComparison {
  /** The breaking ones first; none where they are alike. */
  readonly changes: readonly ContractChange[];
  readonly summary: ChangeSummary;
}

/** Everything that is another in the later contract. Linear in both. */
export function compare(
  { contract: before }: ComparedContract,
  { contract: after }: ComparedContract,
): ContractComparison {
  const aligned = align(before, after);
  const changes = RULES.flatMap((rule) => [...rule(aligned)]);
  return {
    changes: ORDER.flatMap((compatibility) =>
      changes.filter((change) => change.compatibility === compatibility),
    ),
    summary: summarise(aligned),
  };
}
