import type { Reason, Reasons } from '../../contract/index.js';
import { keyOf, ownsItself, roleOf, type Entity, type Owns } from '../../model/index.js';
import { because, becausePlaced, becauseSet, entityNamed, valueOf, type Deriving } from '../context.js';
import { listWord, namedList } from '../names/words.js';
import { placeBeside, placeRootItem } from './beside.js';
import type { OwnedPlace } from './standing.js';
import { idCount, idSegment, itemId, namedItem, type PathTree, type Placed } from './tree.js';

/**
 * `A owns many B`, in the place it was given. `above` is the item of A, or `null` where A has none. Returns the
 * item of B when it stands below that; one at the root is placed later, in a turn of its own.
 */
export function placeNested(
  deriving: Deriving,
  tree: PathTree,
  above: Placed | null,
  owns: Owns,
  place: Exclude<OwnedPlace, 'hidden' | 'inline'>,
): Placed | null {
  const child = entityNamed(deriving, owns.to);
  const why = placementReason(deriving, owns, place);
  if (place === 'flat' || above === null) {
    tree.atRoot.push(() => placeBeside(deriving, tree, owns, child, why));
    return null;
  }
  const collection = tree.add({
    id: owns.id,
    kind: 'collection',
    segments: [...above.segments, listWord(deriving, roleOf(owns), owns.id)],
    word: owns.id,
    parent: above.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [why, ...namedList(deriving, owns.id, owns)],
  });
  if (collection === null || ownsItself(owns)) return null;
  const item = placeItem(deriving, tree, collection, child, owns, place, why);
  if (place === 'both') tree.atRoot.push(() => placeBeside(deriving, tree, owns, child, why, item !== null));
  return item;
}

function placementReason(
  deriving: Deriving,
  owns: Owns,
  place: Exclude<OwnedPlace, 'hidden' | 'inline'>,
): Reason {
  if (ownsItself(owns)) return becausePlaced(deriving, 'place.tree', 'tree', owns.id, owns);
  return becausePlaced(deriving, `place.${place}`, 'owned', owns.id, owns);
}

/** The item below its collection, unless its place or the depth moves it to the root. */
function placeItem(
  deriving: Deriving,
  tree: PathTree,
  collection: Placed,
  child: Entity,
  owns: Owns,
  place: Exclude<OwnedPlace, 'hidden' | 'inline'>,
  why: Reason,
): Placed | null {
  if (place === 'shallow') {
    tree.atRoot.push(() => placeRootItem(deriving, tree, child, [why]));
    return null;
  }
  const reasons = reasonsToStay(deriving, tree, collection, child, owns, why);
  if (reasons === null) return null;
  return tree.add({
    id: itemId(child),
    kind: 'item',
    segments: [...collection.segments, idSegment(deriving, child)],
    parent: collection.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [...reasons, namedItem(deriving, child)],
  });
}

/** Why the items stay below the collection, or `null` when the depth moves them to the root. */
function reasonsToStay(
  deriving: Deriving,
  tree: PathTree,
  collection: Placed,
  child: Entity,
  owns: Owns,
  why: Reason,
): Reasons | null {
  const ids = idCount(collection.segments) + 1;
  const depth = valueOf(deriving, 'depth');
  if (ids <= depth) return [why];
  const key = keyOf(child).attribute;
  if (key.key?.within != null) {
    const reasons = [why, because('place.scoped', key)];
    deriving.findings.push({
      id: 'depth.exceeded',
      severity: 'doubtful',
      message: `The path of a ${child.name} holds ${ids} ids, more than ${depth}: its key ${key.name} is unique only under its owner.`,
      about: itemId(child),
      reasons,
    });
    return reasons;
  }
  const moved = [why, becauseSet(deriving, 'place.depth', ['depth'])];
  tree.atRoot.push(() => placeRootItem(deriving, tree, child, moved));
  deriving.findings.push({
    id: 'depth.moved',
    severity: 'doubtful',
    message: `Below its owner the path of a ${child.name} would hold ${ids} ids, more than ${depth}, so it stands at the root.`,
    about: itemId(child),
    reasons: moved,
    mends: (['shallow', 'flat'] as const).map((place) => ({
      title: `Place it ${place}`,
      act: { kind: 'placement', of: 'owned', subject: owns.id, place },
    })),
  });
  return null;
}
