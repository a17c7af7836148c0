import type { Reason, Reasons } from '../../contract/index.js';
import { keyOf, ownsItself, roleOf, type Entity, type Owns } from '../../model/index.js';
import {
  because,
  becausePlaced,
  becauseSet,
  entityNamed,
  valueOf,
  type DerivationContext,
} from '../context.js';
import { listWord, namedList } from '../names/words.js';
import { placeFlat, placeRootItem } from './flat.js';
import type { OwnedPlacement } from './reachability.js';
import { namedParameter } from '../names/parameters.js';
import { idCount, idSegment, itemId, type PathTree, type PlacedResource } from './tree.js';

/**
 * `A owns many B`, in the place it was given. `above` is the item of A, or `null` where A has none. Returns the
 * item of B when it stands below that; one at the root is placed later, in a turn of its own.
 */
export function placeNested(
  context: DerivationContext,
  tree: PathTree,
  above: PlacedResource | null,
  owns: Owns,
  place: Exclude<OwnedPlacement, 'hidden' | 'inline'>,
): PlacedResource | null {
  const child = entityNamed(context, owns.to);
  const why = placementReason(context, owns, place);
  if (place === 'flat' || above === null) {
    tree.atRoot.push(() => placeFlat(context, tree, owns, child, why));
    return null;
  }
  const collection = tree.add({
    id: owns.id,
    kind: 'collection',
    segments: [...above.segments, listWord(context, roleOf(owns), owns.id)],
    word: owns.id,
    parent: above.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [why, ...namedList(context, owns.id, owns)],
  });
  if (collection === null || ownsItself(owns)) return null;
  const item = placeItem(context, tree, collection, child, owns, place, why);
  if (place === 'both') tree.atRoot.push(() => placeFlat(context, tree, owns, child, why, item !== null));
  return item;
}

function placementReason(
  context: DerivationContext,
  owns: Owns,
  place: Exclude<OwnedPlacement, 'hidden' | 'inline'>,
): Reason {
  if (ownsItself(owns)) return becausePlaced(context, 'place.tree', 'tree', owns.id, owns);
  return becausePlaced(context, `place.${place}`, 'owned', owns.id, owns);
}

/** The item below its collection, unless its place or the depth moves it to the root. */
function placeItem(
  context: DerivationContext,
  tree: PathTree,
  collection: PlacedResource,
  child: Entity,
  owns: Owns,
  place: Exclude<OwnedPlacement, 'hidden' | 'inline'>,
  why: Reason,
): PlacedResource | null {
  if (place === 'shallow') {
    tree.atRoot.push(() => placeRootItem(context, tree, child, [why]));
    return null;
  }
  const reasons = reasonsToStay(context, tree, collection, child, owns, why);
  if (reasons === null) return null;
  return tree.add({
    id: itemId(child),
    kind: 'item',
    segments: [...collection.segments, idSegment(context, child)],
    parent: collection.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [...reasons, namedParameter(context, child)],
  });
}

/** Why the items stay below the collection, or `null` when the depth moves them to the root. */
function reasonsToStay(
  context: DerivationContext,
  tree: PathTree,
  collection: PlacedResource,
  child: Entity,
  owns: Owns,
  why: Reason,
): Reasons | null {
  const ids = idCount(collection.segments) + 1;
  const depth = valueOf(context, 'depth');
  if (ids <= depth) return [why];
  const key = keyOf(child).attribute;
  if (key.key?.within != null) {
    const reasons = [why, because('place.scoped', key)];
    context.findings.push({
      id: 'depth.exceeded',
      severity: 'doubtful',
      message: `The path of a ${child.name} holds ${ids} ids, more than ${depth}: its key ${key.name} is unique only under its owner.`,
      about: itemId(child),
      reasons,
    });
    return reasons;
  }
  const moved = [why, becauseSet(context, 'place.depth', ['depth'])];
  tree.atRoot.push(() => placeRootItem(context, tree, child, moved));
  context.findings.push({
    id: 'depth.moved',
    severity: 'doubtful',
    message: `Below its owner the path of a ${child.name} would hold ${ids} ids, more than ${depth}, so it stands at the root.`,
    about: itemId(child),
    reasons: moved,
    quickFixes: (['shallow', 'flat'] as const).map((place) => ({
      title: `Place it ${place}`,
      answer: { kind: 'placement', of: 'owned', subject: owns.id, place },
    })),
  });
  return null;
}
