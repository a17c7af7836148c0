import { ownsItself } from '../../model/index.js';
import type { Deriving } from '../context.js';
import { placeActions } from './action.js';
import { placeNested } from './nested.js';
import { placePairing, placePairingBack } from './pairing.js';
import { placeReverse } from './reverse.js';
import { placeAtRoot, placeEntry, placeMovedItem } from './root.js';
import { placeSingleton } from './singleton.js';
import { PathTree, type Placed } from './tree.js';

/** Gives every entity its place in the path tree; each resource stands before those below it. */
export function placeResources(deriving: Deriving): readonly Placed[] {
  const tree = new PathTree(deriving.findings);
  placeEntry(deriving, tree);
  for (const entity of deriving.index.entities.values()) {
    const owner = deriving.index.ownerOf.get(entity.name);
    if (owner !== undefined && !ownsItself(owner)) continue;
    placeBelow(deriving, tree, placeAtRoot(deriving, tree, entity));
    for (let moved = tree.moved.shift(); moved !== undefined; moved = tree.moved.shift()) {
      placeBelow(deriving, tree, placeMovedItem(deriving, tree, moved.entity, moved.reasons));
    }
  }
  return tree.placed;
}

/** Places what hangs below one record: what it owns, what it pairs with, what points at it, its actions. */
function placeBelow(deriving: Deriving, tree: PathTree, item: Placed | null): void {
  if (item?.entity == null) return;
  for (const owns of deriving.index.ownedBy.get(item.entity) ?? []) {
    const place = owns.cardinality === 'many' ? placeNested : placeSingleton;
    placeBelow(deriving, tree, place(deriving, tree, item, owns));
  }
  for (const pairs of deriving.index.pairsFrom.get(item.entity) ?? [])
    placePairing(deriving, tree, item, pairs);
  for (const refers of deriving.index.referredBy.get(item.entity) ?? [])
    placeReverse(deriving, tree, item, refers);
  for (const pairs of deriving.index.pairsTo.get(item.entity) ?? [])
    placePairingBack(deriving, tree, item, pairs);
  placeActions(deriving, tree, item);
}

export type { Placed } from './tree.js';
export { itemId, keyType } from './tree.js';
