import { onRemoveOf } from './lookup.js';
import type { ModelIndex } from './lookup.js';
import type { Declaration, Entity, Model } from './types.js';

/**
 * Whether there could be just one record of an entity: nothing owns or points at it, so that nothing makes or keeps
 * another one, and none of its references takes it along when what it points at goes.
 */
export function canBeSingle(index: ModelIndex, { name }: Entity): boolean {
  return (
    !index.ownerOf.has(name) &&
    (index.referredBy.get(name) ?? []).length === 0 &&
    (index.pairsTo.get(name) ?? []).length === 0 &&
    (index.pairsFrom.get(name) ?? []).length === 0 &&
    (index.refersFrom.get(name) ?? []).every((refers) => onRemoveOf(refers) !== 'cascade')
  );
}

/** The model in which there is exactly one record of each entity with one of the identities. */
export function withSingles(model: Model, ids: ReadonlySet<string>): Model {
  const isMeant = (declaration: Declaration): declaration is Entity =>
    declaration.kind === 'entity' && ids.has(declaration.id);
  if (!model.declarations.some(isMeant)) return model;
  const declarations = model.declarations.map((declaration) =>
    isMeant(declaration) ? { ...declaration, single: true } : declaration,
  );
  return { ...model, declarations };
}
