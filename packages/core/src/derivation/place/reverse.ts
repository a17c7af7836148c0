import { backSubject } from '../../arrangement/index.js';
import type { RefersTo } from '../../model/index.js';
import { becausePlaced, placementOf, type DerivationContext } from '../context.js';
import { listWord, namedList } from '../names/words.js';
import type { PathTree, PlacedResource } from './tree.js';

/** `A refers to B, back as s`: below each B, a list of the As that point at it. */
export function placeReverse(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource,
  refers: RefersTo,
): void {
  const subject = backSubject(refers.id);
  if (refers.back === null || placementOf(context, 'back', subject) === 'off') return;
  tree.add({
    id: subject,
    kind: 'reverse',
    segments: [...above.segments, listWord(context, refers.back, subject)],
    word: subject,
    parent: above.id,
    entity: refers.from,
    via: { relationship: refers.id, direction: 'referrers' },
    reasons: [
      becausePlaced(context, 'place.back', 'back', subject, refers),
      ...namedList(context, subject, refers),
    ],
  });
}
