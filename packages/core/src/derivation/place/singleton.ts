import { roleOf, type Owns } from '../../model/index.js';
import { becausePlaced, entityNamed, type Deriving } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import { itemId, type PathTree, type Placed } from './tree.js';

/** `A owns one B` or `A owns optional B`: one place below each A, without an id of its own. */
export function placeSingleton(deriving: Deriving, tree: PathTree, above: Placed, owns: Owns): Placed | null {
  const child = entityNamed(deriving, owns.to);
  return tree.add({
    id: itemId(child),
    kind: 'singleton',
    segments: [...above.segments, literal(deriving, roleOf(owns), owns.id)],
    word: owns.id,
    parent: above.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [
      becausePlaced(deriving, 'place.singleton', 'slot', owns.id, owns),
      namedPath(deriving, owns.id, owns),
    ],
  });
}
