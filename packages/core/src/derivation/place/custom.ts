import { placeOfEffect } from '../../arrangement/index.js';
import { looksThroughList } from '../../contract/index.js';
import { becauseCustom, customOperationsOf, type ResolvedCustom } from '../customOperations/index.js';
import type { DerivationContext } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree, PlacedResource } from './tree.js';

/**
 * Operations of one's own: those about records below the collection or the item, that of the caller at the root, beside
 * the collection of what it reads.
 */
export function placeCustomOperations(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
): void {
  const isHome = above.canonical && above.entity !== null;
  const isItem = above.kind === 'item' || above.kind === 'singleton';
  if (!isHome || (!isItem && above.kind !== 'collection')) return;
  for (const own of customOperationsOf(context, above.entity)) {
    if ((placeOfEffect(own.custom) === 'item') !== isItem) continue;
    if (own.custom.kind === 'caller') placeCaller(context, tree, own);
    else placeBelow(context, tree, above, own);
  }
}

function placeBelow(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  { operation, entity, custom }: ResolvedCustom,
): void {
  const isQuery = looksThroughList(custom);
  const isAggregate = custom.kind === 'aggregate';
  const isOnCollection = above.kind === 'collection';
  tree.add({
    id: `${operation.id}/custom`,
    kind: isQuery ? 'query' : isAggregate ? 'aggregate' : isOnCollection ? 'collection-action' : 'action',
    segments: [...above.segments, literal(context, operation.name, operation.id)],
    parent: above.id,
    entity: entity.name,
    via: isQuery || (isAggregate && isOnCollection) ? above.via : null,
    custom: operation.id,
    word: operation.id,
    reasons: [becauseCustom('place.custom', operation, entity), namedPath(context, operation.id, entity)],
  });
}

function placeCaller(
  context: DerivationContext,
  tree: PathTree,
  { operation, entity }: ResolvedCustom,
): void {
  tree.add({
    id: `${operation.id}/custom`,
    kind: 'query',
    segments: [literal(context, operation.name, operation.id)],
    parent: 'entry',
    entity: entity.name,
    via: null,
    custom: operation.id,
    word: operation.id,
    reasons: [becauseCustom('place.caller', operation, entity), namedPath(context, operation.id, entity)],
  });
}
