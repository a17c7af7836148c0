import type { Reason, Reasons } from '../../contract/index.js';
import type { Entity, Owns } from '../../model/index.js';
import { becauseSet, type DerivationContext } from '../context.js';
import { collectionWord, namedPath } from '../names/words.js';
import { namedParameter } from '../names/parameters.js';
import { flatItem, flatList, idSegment, itemId, type PathTree, type PlacedResource } from './tree.js';

/** An item at the root, while the collection that makes it stands below its owner. */
export function placeRootItem(
  context: DerivationContext,
  tree: PathTree,
  entity: Entity,
  reasons: Reasons,
): PlacedResource | null {
  return tree.add({
    id: itemId(entity),
    kind: 'item',
    segments: [collectionWord(context, entity), idSegment(context, entity)],
    word: entity.id,
    parent: 'entry',
    entity: entity.name,
    via: null,
    reasons: [...reasons, namedPath(context, entity.id, entity), namedParameter(context, entity)],
  });
}

/**
 * What is owned, at the root. Placed flat it is made there; placed both ways it is only listed and read there,
 * and read only where its own item stands elsewhere. Returns the item that is its canonical address.
 */
export function placeFlat(
  context: DerivationContext,
  tree: PathTree,
  owns: Owns,
  entity: Entity,
  why: Reason,
  hasItem?: boolean,
): PlacedResource | null {
  const canonical = hasItem === undefined;
  const segments = [collectionWord(context, entity)];
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
      becauseSet(context, 'name.plural', ['collectionNames'], entity),
      namedPath(context, entity.id, entity),
    ],
  });
  if (collection === null || hasItem === false) return null;
  const item = tree.add({
    id: canonical ? itemId(entity) : flatItem(entity),
    kind: 'item',
    canonical,
    segments: [...segments, idSegment(context, entity)],
    parent: collection.id,
    entity: entity.name,
    via: null,
    reasons: [why, namedParameter(context, entity)],
  });
  return canonical ? item : null;
}
