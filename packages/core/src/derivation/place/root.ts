import { ownsItself, type Entity } from '../../model/index.js';
import { because, becausePlaced, becauseSet, type DerivationContext } from '../context.js';
import { collectionWord, literal, namedPath } from '../names/words.js';
import { isPlacedSingle } from './single.js';
import { namedParameter } from '../names/parameters.js';
import { idSegment, itemId, type PathTree, type PlacedResource } from './tree.js';

/** The entry at the root of the contract. */
export function placeEntry(context: DerivationContext, tree: PathTree): void {
  const reasons = [
    because('place.entry'),
    becauseSet(context, 'name.base', ['basePath', 'versionIn', 'version']),
  ];
  tree.add({ id: 'entry', kind: 'entry', segments: [], parent: null, entity: null, via: null, reasons });
}

/** The one record of an entity: a place at the root, without an id. */
function placeSingle(context: DerivationContext, tree: PathTree, entity: Entity): PlacedResource | null {
  return tree.add({
    id: itemId(entity),
    kind: 'singleton',
    segments: [literal(context, entity.name, entity.id)],
    word: entity.id,
    parent: 'entry',
    entity: entity.name,
    via: null,
    reasons: [
      becausePlaced(context, 'place.single', 'entity', entity.id, entity),
      namedPath(context, entity.id, entity),
    ],
  });
}

/** An entity that nothing else owns: a collection at the root and its items. Returns the item. */
export function placeAtRoot(
  context: DerivationContext,
  tree: PathTree,
  entity: Entity,
): PlacedResource | null {
  const owner = context.index.ownerOf.get(entity.name);
  const why =
    owner !== undefined && ownsItself(owner)
      ? becausePlaced(context, 'place.tree', 'tree', owner.id, owner)
      : becausePlaced(context, 'place.root', 'entity', entity.id, entity);
  if (isPlacedSingle(context, entity)) return placeSingle(context, tree, entity);
  const segments = [collectionWord(context, entity)];
  const named = [
    becauseSet(context, 'name.plural', ['collectionNames'], entity),
    namedPath(context, entity.id, entity),
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
    segments: [...segments, idSegment(context, entity)],
    parent: collection.id,
    entity: entity.name,
    via: null,
    reasons: [why, namedParameter(context, entity)],
  });
}
