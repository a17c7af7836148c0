import { memoize } from './memoize.js';
import { indexModel } from './lookup.js';
import { partsOf } from './expression.js';
import { rolesOfModel } from './rolesFrom.js';
import type { Aggregate, Model } from './types.js';

/** The identities of attributes and relationships that some computed attribute names, so that they cannot change alone. */
export const readByComputed = memoize((model: Model): ReadonlySet<string> => {
  const { entities } = indexModel(model);
  const roles = rolesOfModel(model);
  const read = new Set<string>();
  const attributeOf = (entity: string, name: string): void => {
    const found = entities.get(entity)?.attributes.find((attribute) => attribute.name === name);
    if (found !== undefined) read.add(found.id);
  };
  const along = (entity: string, path: readonly string[]): string =>
    path.reduce((from, role) => {
      const next = roles.get(from)?.get(role);
      if (next !== undefined) read.add(next.relationship.id);
      return next?.to ?? '';
    }, entity);
  const aggregate = (entity: string, { roles: path, attribute, where }: Aggregate): void => {
    const end = along(entity, path);
    if (attribute !== null) attributeOf(end, attribute);
    for (const one of where)
      attributeOf(one.roles.length === 0 ? end : along(entity, one.roles), one.attribute);
  };
  for (const { name: entity, attributes } of entities.values())
    for (const { computed } of attributes)
      for (const part of computed === null ? [] : partsOf(computed)) {
        if (part.kind === 'attribute') attributeOf(entity, part.name);
        if (part.kind === 'aggregate') aggregate(entity, part);
      }
  return read;
});
