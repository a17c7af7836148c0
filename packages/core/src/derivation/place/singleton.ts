import { roleOf, type Owns } from '../../model/index.js';
import { becausePlaced, entityNamed, type DerivationContext } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import { itemId, type PathTree, type PlacedResource } from './tree.js';

/** `A owns one B` or `A owns optional B`: one place below each A, without an id of its own. */
export function placeSingleton(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  owns: Owns,
): PlacedResource | null {
  const child = entityNamed(context, owns.to);
  return tree.add({
    id: itemId(child),
    kind: 'singleton',
    segments: [...above.segments, literal(context, roleOf(owns), owns.id)],
    word: owns.id,
    parent: above.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [
      becausePlaced(context, 'place.singleton', 'slot', owns.id, owns),
      namedPath(context, owns.id, owns),
    ],
  });
}
