import { indexContract, type MemberType } from '../contract/index.js';
import type { RecordView, RequestContext } from '../engine/index.js';
import {
  bareObject,
  indexModel,
  isJsonObject,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import { pointersOf, recordAtPath } from '../transfer/index.js';

/** The identity under which a record holds what a column shows; `null` where nothing is called so. */
export function fieldId(model: Model, storage: EntityStorage, column: string): string | null {
  const attribute = [...storage.attributes, ...storage.computed].find(({ name }) => name === column);
  return attribute?.id ?? pointersOf(model, storage).find(({ name }) => name === column)?.id ?? null;
}

/** The column that shows what a record holds under an identity. */
export function columnOfField(model: Model, storage: EntityStorage, id: string): string | null {
  const attribute = [...storage.attributes, ...storage.computed].find((one) => one.id === id);
  return attribute?.name ?? pointersOf(model, storage).find((pointer) => pointer.id === id)?.name ?? null;
}

const asPath = (keys: Json): readonly Json[] => (Array.isArray(keys) ? (keys as readonly Json[]) : [keys]);

/** The record that the keys in a column lead to. */
export function recordOfKeys(
  model: Model,
  view: RecordView,
  storage: EntityStorage,
  column: string,
  keys: Json,
): Row | null {
  const target = pointersOf(model, storage).find(({ name }) => name === column)?.target;
  return target === undefined || keys === null ? null : recordAtPath(model, view, target, asPath(keys));
}

/** The value of a column, by the names of the model, as a member of a body travels. */
export function sentValue(service: RequestContext, type: MemberType, value: Json): Json {
  if (type.kind === 'list' && Array.isArray(value))
    return (value as readonly Json[]).map((item) => sentValue(service, type.of, item));
  if (type.kind !== 'shape' || !isJsonObject(value)) return value;
  const shape = indexContract(service.contract).shapes.get(type.shape);
  const parts = indexModel(service.model).values.get(shape?.of ?? '')?.attributes ?? [];
  const sent = bareObject();
  for (const [name, part] of Object.entries(value)) {
    const id = parts.find((one) => one.name === name)?.id;
    const member = shape?.members.find(
      ({ source }) => source.kind === 'attribute' && source.attribute === id,
    );
    // What nothing is called so goes as it is: what it is answered with is told best by the contract.
    if (member === undefined || id === undefined) sent[name] = part;
    else sent[member.name] = sentValue(service, member.type, part);
  }
  return sent;
}

/** What a role leads to as a body names it: by its own key. */
export const sentKey = (keys: Json): Json => asPath(keys).at(-1) ?? null;

/** A value in a patch that merges (RFC 7396): what an object leaves out is unset. */
export function withUnset(service: RequestContext, type: MemberType, value: Json): Json {
  if (type.kind !== 'shape' || !isJsonObject(value)) return value;
  const whole = bareObject();
  for (const member of indexContract(service.contract).shapes.get(type.shape)?.members ?? [])
    whole[member.name] = withUnset(service, member.type, value[member.name] ?? null);
  return Object.assign(bareObject(), value, whole);
}

/**
 * A value in a patch that merges (RFC 7396): what an object of the value before has and this one has not is unset, too.
 */
export function overBefore(value: Json, before: Json): Json {
  if (!isJsonObject(value) || !isJsonObject(before)) return value;
  const merged = bareObject();
  for (const name of Object.keys(before)) merged[name] = null;
  for (const [name, inner] of Object.entries(value))
    merged[name] = overBefore(inner, Object.hasOwn(before, name) ? (before[name] ?? null) : null);
  return merged;
}

/** Whether a patch that merges cannot say a value: it removes what is null in an object of JSON (RFC 7396). */
export function isUnsaidByMerging(service: RequestContext, type: MemberType, value: Json): boolean {
  if (!isJsonObject(value)) return false;
  if (type.kind === 'json')
    return Object.values(value).some((inner) => inner === null || isUnsaidByMerging(service, type, inner));
  if (type.kind !== 'shape') return false;
  const members = indexContract(service.contract).shapes.get(type.shape)?.members ?? [];
  return members.some(({ name, type: of }) => isUnsaidByMerging(service, of, value[name] ?? null));
}

/** Whether records of a type are the pairs of a pairing. */
export function pairingIn(model: Model, storage: EntityStorage): boolean {
  return indexModel(model).relationshipById.get(storage.entity.id)?.kind === 'pairs';
}
