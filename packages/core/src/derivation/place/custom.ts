import { looksThroughList } from '../../contract/index.js';
import { becauseCustom, customOperationsOf } from '../customOperations/index.js';
import type { DerivationContext } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree, PlacedResource } from './tree.js';

/** Operations of one's own: queries below the collection they look through, the others below the item. */
export function placeCustomOperations(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
): void {
  const isHome = above.canonical && above.entity !== null;
  const isItem = above.kind === 'item' || above.kind === 'singleton';
  if (!isHome || (!isItem && above.kind !== 'collection')) return;
  for (const { operation, entity, custom } of customOperationsOf(context, above.entity)) {
    if (looksThroughList(custom) === isItem) continue;
    tree.add({
      id: `${operation.id}/custom`,
      kind: isItem ? 'action' : 'query',
      segments: [...above.segments, literal(context, operation.name, operation.id)],
      parent: above.id,
      entity: entity.name,
      via: isItem ? null : above.via,
      custom: operation.id,
      word: operation.id,
      reasons: [becauseCustom('place.custom', operation, entity), namedPath(context, operation.id, entity)],
    });
  }
}
