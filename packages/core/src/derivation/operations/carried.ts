import type { PairsWith } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';

/** The pairing whose pairs carry a value, where the resource is about those. */
export function carriedBy(context: DerivationContext, resource: PlacedResource): PairsWith | null {
  if (resource.kind !== 'pair' && (resource.kind !== 'pairing' || !resource.canonical)) return null;
  const pairs = context.index.relationshipById.get(resource.via?.relationship ?? '');
  return pairs?.kind === 'pairs' && pairs.carrying !== null && context.index.values.has(pairs.carrying)
    ? pairs
    : null;
}
