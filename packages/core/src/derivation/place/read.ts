import { roleOf, type RefersTo } from '../../model/index.js';
import { becausePlaced, placementOf, type DerivationContext } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree, PlacedResource } from './tree.js';

/** `A refers to B as r`, placed to be read: below each A, the B it points at. */
export function placeRead(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  refers: RefersTo,
): void {
  if (placementOf(context, 'reference', refers.id) !== 'read') return;
  tree.add({
    id: `${refers.id}/read`,
    kind: 'reference',
    canonical: false,
    segments: [...above.segments, literal(context, roleOf(refers), refers.id)],
    word: refers.id,
    parent: above.id,
    entity: refers.to,
    via: { relationship: refers.id, direction: 'referred' },
    reasons: [
      becausePlaced(context, 'place.read', 'reference', refers.id, refers),
      namedPath(context, refers.id, refers),
    ],
  });
}
