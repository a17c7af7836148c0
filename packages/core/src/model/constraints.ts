import type { UniqueConstraint, EntityStorage } from './entityStorage.js';
import { indexModel, isSingleton, keyOf, ownerRoleOf, recordAttributes, roleOf } from './lookup.js';
import { memoize } from './memoize.js';
import type { Json, Row } from './records.js';
import { pairStorage } from './pairs.js';
import type { Attribute, Entity, Model, Owns, RefersTo } from './types.js';

export interface Storage {
  /** By the identity of an entity, or of a pairing, whose pairs are records of their own. */
  readonly byId: ReadonlyMap<string, EntityStorage>;
  readonly byName: ReadonlyMap<string, EntityStorage>;
  /** By the name of an entity: every kind of record that can point at its records, and by what. */
  readonly pointing: ReadonlyMap<string, readonly Pointing[]>;
}

export interface Pointing {
  readonly storage: EntityStorage;
  readonly relationship: Owns | RefersTo;
}

/** The rules every dataset of the model obeys. */
export const storageOf = memoize((model: Model): Storage => {
  const byId = new Map<string, EntityStorage>();
  const byName = new Map<string, EntityStorage>();
  const index = indexModel(model);
  for (const entity of index.entities.values()) {
    const storage = entityStorage(model, entity);
    byId.set(entity.id, storage);
    byName.set(entity.name, storage);
  }
  for (const relationship of index.relationships) {
    if (relationship.kind === 'pairs') byId.set(relationship.id, pairStorage(index, relationship));
  }
  return { byId, byName, pointing: findPointing(byId) };
});

function entityStorage(model: Model, entity: Entity): EntityStorage {
  const index = indexModel(model);
  const owner = index.ownerOf.get(entity.name) ?? null;
  const references = index.refersFrom.get(entity.name) ?? [];
  const singleton = isSingleton(index, entity.name);
  const all = recordAttributes(index, entity);
  const attributes = all.filter(({ computed }) => computed === null);
  const key = keyOf(entity).attribute;
  const roles = rolesOf(owner, references);
  const scope = key.key?.within == null ? [] : [key.key.within];
  const keyConstraint = constraint(`${entity.id}/key`, [key.name, ...scope], attributes, roles);
  const slotConstraint =
    singleton && owner !== null
      ? constraint(`${entity.id}/slot`, [ownerRoleOf(owner)], attributes, roles)
      : null;
  // Every record has the same value of a constraint without parts.
  const singleConstraint =
    entity.single === true ? constraint(`${entity.id}/single`, [], attributes, roles) : null;
  const uniques = [
    ...(singleConstraint === null ? [] : [singleConstraint]),
    ...(singleton ? [] : [keyConstraint]),
    ...(slotConstraint === null ? [] : [slotConstraint]),
    ...attributes
      .filter((a) => a.unique && a !== key)
      .map((a) => constraint(a.id, [a.name], attributes, roles)),
    ...attributes.flatMap((a) =>
      a.uniqueWithin === null
        ? []
        : [constraint(`${a.id}/within`, [a.name, a.uniqueWithin], attributes, roles)],
    ),
    ...references.filter((r) => r.unique).map((r) => constraint(r.id, [roleOf(r)], attributes, roles)),
    ...entity.uniques.map((rule) => constraint(rule.id, rule.names, attributes, roles)),
  ];
  const slots = (index.ownedBy.get(entity.name) ?? []).filter((owns) => owns.cardinality === 'one');
  return {
    entity,
    attributes,
    computed: all.filter(({ computed }) => computed !== null),
    singleton,
    key,
    keyConstraint,
    slotConstraint,
    singleConstraint,
    uniques,
    owner,
    references,
    slots,
  };
}

/** The relationships by which records of a kind point at others: to their owner first. */
export const pointingOf = ({
  owner,
  references,
}: Pick<EntityStorage, 'owner' | 'references'>): readonly (Owns | RefersTo)[] =>
  owner === null ? references : [owner, ...references];

/** The name of the entity that records point at by a relationship. */
export const pointedEntity = (relationship: Owns | RefersTo): string =>
  relationship.kind === 'owns' ? relationship.from : relationship.to;

function findPointing(
  storages: ReadonlyMap<string, EntityStorage>,
): ReadonlyMap<string, readonly Pointing[]> {
  const pointing = new Map<string, Pointing[]>();
  for (const storage of storages.values()) {
    for (const relationship of pointingOf(storage)) {
      const target = pointedEntity(relationship);
      const known = pointing.get(target);
      if (known === undefined) pointing.set(target, [{ storage, relationship }]);
      else known.push({ storage, relationship });
    }
  }
  return pointing;
}

function rolesOf(owner: Owns | null, references: readonly RefersTo[]): ReadonlyMap<string, string> {
  const roles = new Map(references.map((refers) => [roleOf(refers), refers.id]));
  if (owner !== null) roles.set(ownerRoleOf(owner), owner.id);
  return roles;
}

function constraint(
  id: string,
  names: readonly string[],
  attributes: readonly Attribute[],
  roles: ReadonlyMap<string, string>,
): UniqueConstraint {
  const parts = names.map((name) => attributes.find((a) => a.name === name)?.id ?? roles.get(name) ?? name);
  return { id, parts, names };
}

/** One value as text: texts never read like anything else. */
function valueText(value: Json): string | null {
  if (value === null) return null;
  if (typeof value === 'string') return `"${value}`;
  return typeof value === 'number' ? String(value) : JSON.stringify(value);
}

/** The value of a constraint in a record, as text; `null` where a part is unset and nothing can collide. */
export function constraintValue(constraint: UniqueConstraint, values: Row['values']): string | null {
  const [first = ''] = constraint.parts;
  if (constraint.parts.length === 1) return valueText(values[first] ?? null);
  const parts: Json[] = [];
  for (const part of constraint.parts) {
    const value = values[part] ?? null;
    if (value === null) return null;
    parts.push(value);
  }
  return JSON.stringify(parts);
}
