import { becausePlaced, entityNamed, placed, type Deriving } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree, Placed } from './tree.js';

/** The transitions of an entity's life cycles, each as an action below its item. */
export function placeActions(deriving: Deriving, tree: PathTree, item: Placed): void {
  if (item.entity === null) return;
  for (const attribute of entityNamed(deriving, item.entity).attributes) {
    for (const transition of attribute.lifeCycle ?? []) {
      if (placed(deriving, 'transition', transition.id) !== 'action') continue;
      tree.add({
        id: `${transition.id}/action`,
        kind: 'action',
        segments: [...item.segments, literal(deriving, transition.name, transition.id)],
        parent: item.id,
        entity: item.entity,
        via: null,
        transition: transition.id,
        word: transition.id,
        reasons: [
          becausePlaced(deriving, 'place.action', 'transition', transition.id, transition),
          namedPath(deriving, transition.id, transition),
        ],
      });
    }
  }
}
