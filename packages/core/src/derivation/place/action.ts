import { becausePlaced, entityNamed, placementOf, type DerivationContext } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree, PlacedResource } from './tree.js';

/** The transitions of an entity's life cycles, each as an action below its item. */
export function placeActions(context: DerivationContext, tree: PathTree, item: PlacedResource): void {
  if (item.entity === null) return;
  for (const attribute of entityNamed(context, item.entity).attributes) {
    for (const transition of attribute.lifeCycle ?? []) {
      if (placementOf(context, 'transition', transition.id) !== 'action') continue;
      tree.add({
        id: `${transition.id}/action`,
        kind: 'action',
        segments: [...item.segments, literal(context, transition.name, transition.id)],
        parent: item.id,
        entity: item.entity,
        via: null,
        transition: transition.id,
        word: transition.id,
        reasons: [
          becausePlaced(context, 'place.action', 'transition', transition.id, transition),
          namedPath(context, transition.id, transition),
        ],
      });
    }
  }
}
