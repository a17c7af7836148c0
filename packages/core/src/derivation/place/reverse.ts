import { backSubject } from '../../arrangement/index.js';
import type { RefersTo } from '../../model/index.js';
import { becausePlaced, placed, type Deriving } from '../context.js';
import { listWord, namedList } from '../names/words.js';
import type { PathTree, Placed } from './tree.js';

/** `A refers to B, back as s`: below each B, a list of the As that point at it. */
export function placeReverse(deriving: Deriving, tree: PathTree, above: Placed, refers: RefersTo): void {
  const subject = backSubject(refers.id);
  if (refers.back === null || placed(deriving, 'back', subject) === 'off') return;
  tree.add({
    id: subject,
    kind: 'reverse',
    segments: [...above.segments, listWord(deriving, refers.back, subject)],
    word: subject,
    parent: above.id,
    entity: refers.from,
    via: { relationship: refers.id, direction: 'referrers' },
    reasons: [
      becausePlaced(deriving, 'place.back', 'back', subject, refers),
      ...namedList(deriving, subject, refers),
    ],
  });
}
