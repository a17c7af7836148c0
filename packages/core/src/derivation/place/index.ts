import { ownsItself, type Entity, type Owns } from '../../model/index.js';
import { entityNamed, placed, type Deriving } from '../context.js';
import { placeActions } from './action.js';
import { placeCustomOperations } from './custom.js';
import { placeNested } from './nested.js';
import { placePairing, placePairingBack, placePairingFar } from './pairing.js';
import { placeRead } from './read.js';
import { placeReverse } from './reverse.js';
import { placeAtRoot, placeEntry } from './root.js';
import { placeSingleton } from './singleton.js';
import { standingsOf, type Standings } from './standing.js';
import { PathTree, type Placed } from './tree.js';

/** Gives every entity its place in the path tree; each resource stands before those below it. */
export function placeResources(deriving: Deriving): readonly Placed[] {
  const tree = new PathTree(deriving.findings, (growing, resource) => {
    if (deriving.arrangement.customOperations.length > 0) placeCustomOperations(deriving, growing, resource);
  });
  const standings = standingsOf(deriving);
  placeEntry(deriving, tree);
  for (const entity of deriving.index.entities.values()) {
    const owner = deriving.index.ownerOf.get(entity.name);
    if (owner !== undefined && !ownsItself(owner)) continue;
    if (standings.of.get(entity.name) === 'exposed')
      placeBelow(deriving, tree, standings, placeAtRoot(deriving, tree, entity));
    else queueBeside(deriving, tree, standings, entity);
    for (let place = tree.atRoot.shift(); place !== undefined; place = tree.atRoot.shift())
      placeBelow(deriving, tree, standings, place());
  }
  return tree.placed;
}

/** Places what hangs below one record: what it owns, what it pairs with, what points at it, its actions. */
function placeBelow(deriving: Deriving, tree: PathTree, standings: Standings, item: Placed | null): void {
  if (item?.entity == null) return;
  const { index } = deriving;
  const isExposed = (entity: string): boolean => standings.of.get(entity) === 'exposed';
  for (const owns of index.ownedBy.get(item.entity) ?? [])
    placeBelow(deriving, tree, standings, placeOwned(deriving, tree, standings, item, owns));
  for (const pairs of index.pairsFrom.get(item.entity) ?? [])
    if (isExposed(pairs.to)) placePairing(deriving, tree, item, pairs);
  for (const refers of index.refersFrom.get(item.entity) ?? [])
    if (isExposed(refers.to)) placeRead(deriving, tree, item, refers);
  for (const refers of index.referredBy.get(item.entity) ?? [])
    if (isExposed(refers.from)) placeReverse(deriving, tree, item, refers);
  for (const pairs of index.pairsTo.get(item.entity) ?? [])
    if (isExposed(pairs.from)) {
      placePairingBack(deriving, tree, item, pairs);
      placePairingFar(deriving, tree, item, pairs);
    }
  placeActions(deriving, tree, item);
}

/** Returns the item or slot that stands below `above`, if it does. */
function placeOwned(
  deriving: Deriving,
  tree: PathTree,
  standings: Standings,
  above: Placed,
  owns: Owns,
): Placed | null {
  if (owns.cardinality !== 'many')
    return placed(deriving, 'slot', owns.id) === 'singleton'
      ? placeSingleton(deriving, tree, above, owns)
      : hiddenBelow(deriving, tree, standings, owns);
  if (ownsItself(owns) && placed(deriving, 'tree', owns.id) === 'hidden') return null;
  const place = standings.owned.get(owns.id) ?? 'nested';
  return place === 'hidden' || place === 'inline'
    ? hiddenBelow(deriving, tree, standings, owns)
    : placeNested(deriving, tree, above, owns, place);
}

function hiddenBelow(deriving: Deriving, tree: PathTree, standings: Standings, owns: Owns): null {
  queueBeside(deriving, tree, standings, entityNamed(deriving, owns.to));
  return null;
}

/** Below what has no path, only what is placed beside its owner has one. */
function queueBeside(deriving: Deriving, tree: PathTree, standings: Standings, entity: Entity): void {
  const waiting = [entity.name];
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    for (const owns of deriving.index.ownedBy.get(name) ?? []) {
      if (ownsItself(owns)) continue;
      if (standings.owned.get(owns.id) === 'flat') placeNested(deriving, tree, null, owns, 'flat');
      else waiting.push(owns.to);
    }
  }
}

export { standingsOf } from './standing.js';
export type { Placed } from './tree.js';
export { itemId, keyType } from './tree.js';
