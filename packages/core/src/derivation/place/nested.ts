import type { Reason } from '../../contract/index.js';
import { keyOf, ownsItself, roleOf, type Entity, type Owns } from '../../model/index.js';
import { because, becauseSet, entityNamed, valueOf, type Deriving } from '../context.js';
import {
  idCount,
  idSegment,
  itemId,
  literal,
  namedItem,
  namedPath,
  type PathTree,
  type Placed,
} from './tree.js';

/**
 * `A owns many B`: a collection below each A. Its items stand below that while the path holds no more ids
 * than the depth; beyond, they wait to be placed at the root. Returns the item when it stands here.
 */
export function placeNested(deriving: Deriving, tree: PathTree, above: Placed, owns: Owns): Placed | null {
  const child = entityNamed(deriving, owns.to);
  const segments = [...above.segments, literal(deriving, roleOf(owns))];
  const why = because(ownsItself(owns) ? 'place.tree' : 'place.nested', owns);
  const collection = tree.add({
    id: owns.id,
    kind: 'collection',
    segments,
    parent: above.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [why, ...namedPath(deriving, owns)],
  });
  if (collection === null || ownsItself(owns)) return null;
  const reasons = itemPlacement(deriving, tree, collection, child, why);
  if (reasons === null) return null;
  return tree.add({
    id: itemId(child),
    kind: 'item',
    segments: [...segments, idSegment(child)],
    parent: collection.id,
    entity: child.name,
    via: { relationship: owns.id, direction: 'owned' },
    reasons: [...reasons, ...namedItem(child)],
  });
}

/** Why the items stay below the collection, or `null` when they move to the root. */
function itemPlacement(
  deriving: Deriving,
  tree: PathTree,
  collection: Placed,
  child: Entity,
  why: Reason,
): readonly Reason[] | null {
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
  tree.moved.push({ entity: child, reasons: moved });
  deriving.findings.push({
    id: 'depth.moved',
    severity: 'doubtful',
    message: `Below its owner the path of a ${child.name} would hold ${ids} ids, more than ${depth}, so it stands at the root.`,
    about: itemId(child),
    reasons: moved,
  });
  return null;
}
