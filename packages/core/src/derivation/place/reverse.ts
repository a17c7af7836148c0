import type { RefersTo } from '../../model/index.js';
import { because, type Deriving } from '../context.js';
import { literal, namedPath, type PathTree, type Placed } from './tree.js';

/** `A refers to B, back as s`: below each B, a list of the As that point at it. */
export function placeReverse(deriving: Deriving, tree: PathTree, above: Placed, refers: RefersTo): void {
  if (refers.back === null) return;
  tree.add({
    id: `${refers.id}/back`,
    kind: 'reverse',
    segments: [...above.segments, literal(deriving, refers.back)],
    parent: above.id,
    entity: refers.from,
    via: { relationship: refers.id, direction: 'referrers' },
    reasons: [because('place.back', refers), ...namedPath(deriving, refers)],
  });
}
