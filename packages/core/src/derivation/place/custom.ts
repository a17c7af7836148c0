import { becauseCustom, customOperationsOf } from '../customOperations/index.js';
import type { Deriving } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree, Placed } from './tree.js';

/** Operations of one's own: queries below the collection they look through, the others below the item. */
export function placeCustomOperations(deriving: Deriving, tree: PathTree, above: Placed): void {
  const isHome = above.canonical && above.entity !== null;
  const isItem = above.kind === 'item' || above.kind === 'singleton';
  if (!isHome || (!isItem && above.kind !== 'collection')) return;
  for (const { operation, entity, custom } of customOperationsOf(deriving, above.entity)) {
    if ((custom.kind === 'query') === isItem) continue;
    tree.add({
      id: `${operation.id}/custom`,
      kind: isItem ? 'action' : 'query',
      segments: [...above.segments, literal(deriving, operation.name, operation.id)],
      parent: above.id,
      entity: entity.name,
      via: isItem ? null : above.via,
      custom: operation.id,
      word: operation.id,
      reasons: [becauseCustom('place.custom', operation, entity), namedPath(deriving, operation.id, entity)],
    });
  }
}
