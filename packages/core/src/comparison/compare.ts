import type { Contract } from '../contract/index.js';
import { align } from './align.js';
import { compareAddresses } from './rules/addresses.js';
import { compareBodies } from './rules/bodies.js';
import { compareDemands } from './rules/demands.js';
import { compareEffects } from './rules/effects.js';
import { compareLinks } from './rules/links.js';
import { compareParameters } from './rules/parameters.js';
import { compareRepresentations } from './rules/representations.js';
import { compareStatuses } from './rules/statuses.js';
import type { ContractChange, ComparisonRule, Compatibility } from './types.js';

const COMPARISONS: readonly ComparisonRule[] = [
  compareAddresses,
  compareEffects,
  compareParameters,
  compareBodies,
  compareStatuses,
  compareDemands,
  compareRepresentations,
  compareLinks,
];

const WEIGHTS: readonly Compatibility[] = ['breaking', 'compatible', 'cosmetic'];

/** Every change from one contract to another, the breaking ones first; none where they are alike. Linear in both. */
export function compareContracts(before: Contract, after: Contract): readonly ContractChange[] {
  const aligned = align(before, after);
  const changes = COMPARISONS.flatMap((comparison) => [...comparison(aligned)]);
  return WEIGHTS.flatMap((weight) => changes.filter((change) => change.compatibility === weight));
}
