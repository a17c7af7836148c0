import { roleOf, type RefersTo } from '../../model/index.js';
import { becausePlaced, placed, type Deriving } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree, Placed } from './tree.js';

/** `A refers to B as r`, placed to be read: below each A, the B it points at. */
export function placeRead(deriving: Deriving, tree: PathTree, above: Placed, refers: RefersTo): void {
  if (placed(deriving, 'reference', refers.id) !== 'read') return;
  tree.add({
    id: `${refers.id}/read`,
    kind: 'reference',
    canonical: false,
    segments: [...above.segments, literal(deriving, roleOf(refers), refers.id)],
    word: refers.id,
    parent: above.id,
    entity: refers.to,
    via: { relationship: refers.id, direction: 'referred' },
    reasons: [
      becausePlaced(deriving, 'place.read', 'reference', refers.id, refers),
      namedPath(deriving, refers.id, refers),
    ],
  });
}
