import { memoize } from '../../model/index.js';
import { valueOf, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';

/** Names of the entities of which an answer may have only the members that were asked for. */
const found = memoize<DerivationContext, Set<string>>(() => new Set());

/** Found once, when the path tree stands: answers of one entity have one shape, wherever they are given. */
export function findSparse(context: DerivationContext, resources: readonly PlacedResource[]): void {
  for (const { id, entity } of resources)
    if (entity !== null && valueOf(context, 'fields', { resource: id }) === 'on') found(context).add(entity);
}

/** Whether an answer may leave out members of an entity because others were asked for. */
export const isSparse = (context: DerivationContext, entity: string): boolean =>
  valueOf(context, 'fields') === 'on' || found(context).has(entity);
