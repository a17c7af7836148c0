import type { Reason, Reasons } from '../../contract/index.js';
import type { Entity, Owns } from '../../model/index.js';
import { becauseSet, type Deriving } from '../context.js';
import { collectionWord, namedPath } from '../names/words.js';
import { flatItem, flatList, idSegment, itemId, namedItem, type PathTree, type Placed } from './tree.js';

/** An item at the root, while the collection that makes it stands below its owner. */
export function placeRootItem(
  deriving: Deriving,
  tree: PathTree,
  entity: Entity,
  reasons: Reasons,
): Placed | null {
  return tree.add({
    id: itemId(entity),
    kind: 'item',
    segments: [collectionWord(deriving, entity), idSegment(deriving, entity)],
    word: entity.id,
    parent: 'entry',
    entity: entity.name,
    via: null,
    reasons: [...reasons, namedPath(deriving, entity.id, entity), namedItem(deriving, entity)],
  });
}

/**
 * What is owned, at the root. Placed flat it is made there; placed both ways it is only listed and read there,
 * and read only where its own item stands elsewhere. Returns the item that is its canonical address.
 */
export function placeBeside(
  deriving: Deriving,
  tree: PathTree,
  owns: Owns,
  entity: Entity,
  why: Reason,
  hasItem?: boolean,
): Placed | null {
  const canonical = hasItem === undefined;
  const segments = [collectionWord(deriving, entity)];
  const collection = tree.add({
    id: canonical ? owns.id : flatList(owns),
    kind: 'collection',
    canonical,
    segments,
    word: entity.id,
    parent: 'entry',
    entity: entity.name,
    via: null,
    reasons: [
      why,
      becauseSet(deriving, 'name.plural', ['collectionNames'], entity),
      namedPath(deriving, entity.id, entity),
    ],
  });
  if (collection === null || hasItem === false) return null;
  const item = tree.add({
    id: canonical ? itemId(entity) : flatItem(entity),
    kind: 'item',
    canonical,
    segments: [...segments, idSegment(deriving, entity)],
    parent: collection.id,
    entity: entity.name,
    via: null,
    reasons: [why, namedItem(deriving, entity)],
  });
  return canonical ? item : null;
}
