import { indexModel, ownerRoleOf, roleOf, type Model } from '@isomeros/core/model';

/** What an entity calls the one record of another that it belongs to or refers to. */
export function toOneRoles(model: Model, entity: string): readonly string[] {
  const index = indexModel(model);
  const owner = index.ownerOf.get(entity);
  const references = index.refersFrom.get(entity) ?? [];
  return [...(owner === undefined ? [] : [ownerRoleOf(owner)]), ...references.map(roleOf)];
}
