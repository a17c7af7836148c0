import { appendAll, ownsItself, type Entity, type Owns } from '../../model/index.js';
import { customFindings } from '../customOperations/index.js';
import { entityNamed, placementOf, type DerivationContext } from '../context.js';
import { placeActions } from './action.js';
import { placeCustomOperations } from './custom.js';
import { placeFixed } from './fixed.js';
import { placeNested } from './nested.js';
import { placePairing, placePairingBack, placePairingFar } from './pairing.js';
import { placeRead } from './read.js';
import { placeReverse } from './reverse.js';
import { placeAtRoot, placeEntry } from './root.js';
import { findNotSingle } from './single.js';
import { placeSingleton } from './singleton.js';
import { withPlainIds } from './plainIds.js';
import { reachabilityOf, type ReachabilityMap } from './reachability.js';
import { PathTree, type PlacedResource } from './tree.js';

/** Gives every entity its place in the path tree; each resource stands before those below it. */
export function placeResources(context: DerivationContext): readonly PlacedResource[] {
  const tree = new PathTree(context.findings, (growing, resource) => {
    if (context.arrangement.customOperations.length > 0) placeCustomOperations(context, growing, resource);
  });
  const reachability = reachabilityOf(context);
  appendAll(context.findings, reachability.findings);
  appendAll(context.findings, findNotSingle(context));
  appendAll(context.findings, customFindings(context));
  placeEntry(context, tree);
  placeFixed(context, tree);
  for (const entity of context.index.entities.values()) {
    const owner = context.index.ownerOf.get(entity.name);
    if (owner !== undefined && !ownsItself(owner)) continue;
    if (reachability.of.get(entity.name) === 'exposed')
      placeBelow(context, tree, reachability, placeAtRoot(context, tree, entity));
    else queueBeside(context, tree, reachability, entity);
    for (let place = tree.atRoot.shift(); place !== undefined; place = tree.atRoot.shift())
      placeBelow(context, tree, reachability, place());
  }
  return withPlainIds(context, tree.placed);
}

/** Places what hangs below one record: what it owns, what it pairs with, what points at it, its actions. */
function placeBelow(
  context: DerivationContext,
  tree: PathTree,
  reachability: ReachabilityMap,
  item: PlacedResource | null,
): void {
  if (item?.entity == null) return;
  const { index } = context;
  const isExposed = (entity: string): boolean => reachability.of.get(entity) === 'exposed';
  for (const owns of index.ownedBy.get(item.entity) ?? [])
    placeBelow(context, tree, reachability, placeOwned(context, tree, reachability, item, owns));
  for (const pairs of index.pairsFrom.get(item.entity) ?? [])
    if (isExposed(pairs.to)) placePairing(context, tree, item, pairs);
  for (const refers of index.refersFrom.get(item.entity) ?? [])
    if (isExposed(refers.to)) placeRead(context, tree, item, refers);
  for (const refers of index.referredBy.get(item.entity) ?? [])
    if (isExposed(refers.from)) placeReverse(context, tree, item, refers);
  for (const pairs of index.pairsTo.get(item.entity) ?? [])
    if (isExposed(pairs.from)) {
      placePairingBack(context, tree, item, pairs);
      placePairingFar(context, tree, item, pairs);
    }
  placeActions(context, tree, item);
}

/** Returns the item or slot that stands below `above`, if it does. */
function placeOwned(
  context: DerivationContext,
  tree: PathTree,
  reachability: ReachabilityMap,
  above: PlacedResource,
  owns: Owns,
): PlacedResource | null {
  if (owns.cardinality !== 'many')
    return placementOf(context, 'slot', owns.id) === 'singleton'
      ? placeSingleton(context, tree, above, owns)
      : hiddenBelow(context, tree, reachability, owns);
  if (ownsItself(owns) && placementOf(context, 'tree', owns.id) === 'hidden') return null;
  const place = reachability.owned.get(owns.id) ?? 'nested';
  return place === 'hidden' || place === 'inline'
    ? hiddenBelow(context, tree, reachability, owns)
    : placeNested(context, tree, above, owns, place);
}

function hiddenBelow(
  context: DerivationContext,
  tree: PathTree,
  reachability: ReachabilityMap,
  owns: Owns,
): null {
  queueBeside(context, tree, reachability, entityNamed(context, owns.to));
  return null;
}

/** Below what has no path, only what is placed beside its owner has one. */
function queueBeside(
  context: DerivationContext,
  tree: PathTree,
  reachability: ReachabilityMap,
  entity: Entity,
): void {
  const waiting = [entity.name];
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    for (const owns of context.index.ownedBy.get(name) ?? []) {
      if (ownsItself(owns)) continue;
      if (reachability.owned.get(owns.id) === 'flat') placeNested(context, tree, null, owns, 'flat');
      else waiting.push(owns.to);
    }
  }
}

export { reachabilityOf } from './reachability.js';
export type { PlacedResource } from './tree.js';
export { itemId, keyType } from './tree.js';
export { isPlacedSingle } from './single.js';
