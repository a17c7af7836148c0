import {
  appendAll,
  bareObject,
  constraintValue,
  mustLead,
  ownerRoleOf,
  pointedEntity,
  pointingOf,
  roleOf,
  storageOf,
  type Attribute,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import { normalKey, type RecordView } from '../engine/index.js';

/** A to-one role of a kind of record, as it is written in and out. */
export interface Pointer {
  readonly name: string;
  /** The identity of the relationship. */
  readonly id: string;
  readonly target: EntityStorage;
  /** Whether a record must lead to one. */
  readonly isNeeded: boolean;
}

/** Every kind of record a model has, by the name it is written under: entities, and pairings as `Sailing crew`. */
export function recordTypesOf(model: Model): ReadonlyMap<string, EntityStorage> {
  return new Map([...storageOf(model).byId.values()].map((storage) => [storage.entity.name, storage]));
}

/** The owner and the references of a kind, owner first. */
export function pointersOf(model: Model, storage: EntityStorage): readonly Pointer[] {
  return pointingOf(storage).flatMap((relationship) => {
    const target = storageOf(model).byName.get(pointedEntity(relationship));
    const name = relationship.kind === 'owns' ? ownerRoleOf(relationship) : roleOf(relationship);
    return target === undefined
      ? []
      : [{ name, id: relationship.id, target, isNeeded: mustLead(relationship) }];
  });
}

/** The pointers that, with the key, tell a record from all others of its kind. */
export function scopeOf(model: Model, storage: EntityStorage): readonly Pointer[] {
  const pointers = pointersOf(model, storage);
  if (!storage.singleton) return pointers.filter(({ name }) => name === storage.key.key?.within);
  return storage.owner === null ? pointers : pointers.slice(0, 1);
}

/** The attributes whose values, one after the other, lead to a record: keys of owners first where they are needed. */
export function pathAttributes(model: Model, storage: EntityStorage): readonly Attribute[] {
  return [
    ...scopeOf(model, storage).flatMap(({ target }) => pathAttributes(model, target)),
    ...(storage.singleton ? [] : [storage.key]),
  ];
}

/** The values that lead to a record; `null` where one of them is unset. */
export function keyPathOf(
  model: Model,
  view: Pick<RecordView, 'get'>,
  storage: EntityStorage,
  { values }: Pick<Row, 'values'>,
): readonly Json[] | null {
  const path: Json[] = [];
  for (const { id, target } of scopeOf(model, storage)) {
    const rid = values[id];
    const row = typeof rid === 'number' ? view.get(rid) : undefined;
    const above = row === undefined ? null : keyPathOf(model, view, target, row);
    if (above === null) return null;
    appendAll(path, above);
  }
  if (storage.singleton) return path;
  const key = values[storage.key.id] ?? null;
  return key === null ? null : [...path, key];
}

/** The record that keys lead to: the inverse of `keyPathOf`. */
export function recordAtPath(
  model: Model,
  view: Pick<RecordView, 'find'>,
  storage: EntityStorage,
  path: readonly Json[],
): Row | null {
  const values = bareObject();
  let used = 0;
  for (const { id, target } of scopeOf(model, storage)) {
    const length = pathAttributes(model, target).length;
    const above = recordAtPath(model, view, target, path.slice(used, used + length));
    if (above === null) return null;
    values[id] = above.rid;
    used += length;
  }
  const { singleton, key, slotConstraint, singleConstraint, keyConstraint } = storage;
  if (!singleton) values[key.id] = normalKey(key.type.kind, path[used++] ?? null);
  if (used !== path.length) return null;
  const constraint = singleton ? (slotConstraint ?? singleConstraint ?? keyConstraint) : keyConstraint;
  const value = constraintValue(constraint, values);
  return value === null ? null : (view.find(storage, constraint, value) ?? null);
}
