import { ownsItself, type Entity } from '../../model/index.js';
import { because, becausePlaced, becauseSet, type Deriving } from '../context.js';
import { collectionWord, namedPath } from '../names/words.js';
import { idSegment, itemId, namedItem, type PathTree, type Placed } from './tree.js';

/** The entry at the root of the contract. */
export function placeEntry(deriving: Deriving, tree: PathTree): void {
  const reasons = [
    because('place.entry'),
    becauseSet(deriving, 'name.base', ['basePath', 'versionIn', 'version']),
  ];
  tree.add({ id: 'entry', kind: 'entry', segments: [], parent: null, entity: null, via: null, reasons });
}

/** An entity that nothing else owns: a collection at the root and its items. Returns the item. */
export function placeAtRoot(deriving: Deriving, tree: PathTree, entity: Entity): Placed | null {
  const owner = deriving.index.ownerOf.get(entity.name);
  const why =
    owner !== undefined && ownsItself(owner)
      ? becausePlaced(deriving, 'place.tree', 'tree', owner.id, owner)
      : becausePlaced(deriving, 'place.root', 'entity', entity.id, entity);
  const segments = [collectionWord(deriving, entity)];
  const named = [
    becauseSet(deriving, 'name.plural', ['collectionNames'], entity),
    namedPath(deriving, entity.id, entity),
  ];
  const collection = tree.add({
    id: entity.id,
    kind: 'collection',
    segments,
    word: entity.id,
    parent: 'entry',
    entity: entity.name,
    via: null,
    reasons: [why, ...named],
  });
  if (collection === null) return null;
  return tree.add({
    id: itemId(entity),
    kind: 'item',
    segments: [...segments, idSegment(deriving, entity)],
    parent: collection.id,
    entity: entity.name,
    via: null,
    reasons: [why, namedItem(deriving, entity)],
  });
}
