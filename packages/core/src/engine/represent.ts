import type { Link, Member, MemberType, Resource, Shape } from '../contract/index.js';
import { bareObject, isJsonObject, scalarText, type Json, type Row } from '../model/index.js';
import type { RecordView } from './dataset.js';
import { allows, transitionOf } from './lifeCycle.js';
import { indexOf, shapeNamed, storageNamed, storages, type Serving } from './service.js';

/**
 * The path of a resource for a record, or a record below which it lies; `null` when an owner is missing.
 * The last id of a pair is that of the record it is paired with.
 */
export function pathOf(
  service: Serving,
  view: RecordView,
  resource: Resource,
  record: Row | null,
  paired: Row | null = null,
): string | null {
  let path = service.contract.root;
  for (const [index, segment] of resource.segments.entries()) {
    if (segment.kind === 'literal') {
      path += `/${segment.text}`;
      continue;
    }
    const last = index === resource.segments.length - 1;
    const holder = last && paired !== null ? paired : ancestor(service, view, record, segment.entity);
    if (holder === null) return null;
    path += `/${encodeURIComponent(scalarText(holder.values[storageNamed(service, segment.entity).key.id]))}`;
  }
  return path;
}

/** The record itself or the nearest of its owners that is of the entity. */
function ancestor(service: Serving, view: RecordView, record: Row | null, entity: string): Row | null {
  let step = record;
  while (step !== null) {
    const storage = storages(service).byId.get(step.entity);
    if (storage === undefined) return null;
    if (storage.entity.name === entity) return step;
    step = storage.owner === null ? null : pointedAt(view, step, storage.owner.id);
  }
  return null;
}

/** The record that a reference or the ownership of a record points at. */
export function pointedAt(view: RecordView, record: Row, relationship: string): Row | null {
  const rid = record.values[relationship];
  return typeof rid === 'number' ? (view.get(rid) ?? null) : null;
}

/** The canonical path of a record: what `self` and `Location` give. */
export function canonicalPath(service: Serving, view: RecordView, record: Row): string | null {
  const storage = storages(service).byId.get(record.entity);
  const resource = storage === undefined ? undefined : indexOf(service).canonical.get(storage.entity.name);
  return resource === undefined ? null : pathOf(service, view, resource, record);
}

/** A record as its item shape shows it, links included. */
export const representRecord = (service: Serving, view: RecordView, record: Row): Record<string, Json> =>
  representAs(service, view, record, 'item');

/** A record as a list shows it, which may be less of it. */
export const representListed = (service: Serving, view: RecordView, record: Row): Record<string, Json> =>
  representAs(service, view, record, 'member');

function representAs(
  service: Serving,
  view: RecordView,
  record: Row,
  purpose: 'item' | 'member',
): Record<string, Json> {
  const storage = storages(service).byId.get(record.entity);
  if (storage === undefined) throw new Error(`The dataset has no entity ${record.entity}.`);
  const { name } = storage.entity;
  const listed = purpose === 'member' ? indexOf(service).shapes.get(`${name}.member`) : undefined;
  const body = representMembers(service, view, listed ?? shapeNamed(service, name), record);
  body[service.contract.names.links] = recordLinks(service, view, record);
  return body;
}

/** The members of a shape that come from the record itself; unset ones are null. */
export function representMembers(
  service: Serving,
  view: RecordView,
  shape: Shape,
  record: Row,
): Record<string, Json> {
  const body = bareObject();
  for (const member of shape.members) {
    const value = memberValue(service, view, member, record);
    if (value !== undefined) body[member.name] = value;
  }
  return body;
}

/** The value of a member as it travels; `undefined` for members that no record holds. */
export function memberValue(
  service: Serving,
  view: RecordView,
  member: Member,
  record: Row,
): Json | undefined {
  switch (member.source.kind) {
    case 'attribute':
      return toWire(service, member.type, record.values[member.source.attribute] ?? null);
    case 'reference':
    case 'owner': {
      const target = pointedAt(view, record, member.source.relationship);
      return target === null
        ? null
        : (target.values[storageNamed(service, member.source.entity).key.id] ?? null);
    }
    case 'carried':
    case 'slot':
    case 'links':
    case 'items':
    case 'page':
      return undefined;
  }
}

/** What a value holds, as it travels. */
export const representValue = (service: Serving, name: string, stored: Json): Json =>
  toWire(service, { kind: 'shape', shape: name }, stored);

/** From the stored form of a value, keyed by identities, to the members a client sees. */
function toWire(service: Serving, type: MemberType, stored: Json): Json {
  if (stored === null) return null;
  if (type.kind === 'list')
    return Array.isArray(stored) ? stored.map((item: Json) => toWire(service, type.of, item)) : null;
  if (type.kind !== 'shape' || !isJsonObject(stored)) return stored;
  const object = bareObject();
  for (const member of shapeNamed(service, type.shape).members) {
    if (member.source.kind !== 'attribute') continue;
    object[member.name] = toWire(service, member.type, stored[member.source.attribute] ?? null);
  }
  return object;
}

/** The links of a record's representation; those that lead nowhere now are left out. */
function recordLinks(service: Serving, view: RecordView, record: Row): Json {
  const storage = storages(service).byId.get(record.entity);
  const resource = indexOf(service).canonical.get(storage?.entity.name ?? '');
  const links = bareObject();
  for (const link of resource?.links ?? []) {
    const href = recordHref(service, view, link, record);
    if (href !== null) links[link.relation] = { href };
  }
  return links;
}

function recordHref(service: Serving, view: RecordView, link: Link, record: Row): string | null {
  const { target } = link;
  switch (target.kind) {
    case 'self':
      return canonicalPath(service, view, record);
    case 'resource': {
      const resource = indexOf(service).resources.get(target.resource);
      return resource === undefined ? null : pathOf(service, view, resource, record);
    }
    case 'read': {
      const resource = indexOf(service).resources.get(target.resource);
      const isSet = pointedAt(view, record, target.relationship) !== null;
      return resource === undefined || !isSet ? null : pathOf(service, view, resource, record);
    }
    case 'filtered': {
      const list = indexOf(service).resources.get(target.resource);
      const path = list === undefined ? null : pathOf(service, view, list, null);
      const key = storages(service).byId.get(record.entity)?.key;
      if (path === null || key === undefined) return null;
      return `${path}?${encodeURIComponent(target.parameter)}=${encodeURIComponent(scalarText(record.values[key.id]))}`;
    }
    case 'reference':
    case 'owner': {
      const other = pointedAt(view, record, target.relationship);
      return other === null ? null : canonicalPath(service, view, other);
    }
    case 'action': {
      const found = transitionOf(service, record, target.transition);
      const resource = indexOf(service).resources.get(target.resource);
      if (found === null || resource === undefined) return null;
      return allows(found, record, service.now) ? pathOf(service, view, resource, record) : null;
    }
    case 'pair':
    case 'template':
    case 'page':
    case 'description':
      return null;
  }
}

/** The entry: where everything begins. */
export function representEntry(service: Serving, view: RecordView, resource: Resource): Record<string, Json> {
  const links = bareObject();
  for (const link of resource.links) {
    const href = entryHref(service, view, link);
    if (href !== null) links[link.relation] = { href };
  }
  return Object.assign(bareObject(), { [service.contract.names.links]: links });
}

function entryHref(service: Serving, view: RecordView, link: Link): string | null {
  switch (link.target.kind) {
    case 'self':
      return service.contract.root === '' ? '/' : service.contract.root;
    case 'description':
      return descriptionPath(service.contract.root);
    case 'resource': {
      const resource = indexOf(service).resources.get(link.target.resource);
      return resource === undefined ? null : pathOf(service, view, resource, null);
    }
    case 'reference':
    case 'read':
    case 'filtered':
    case 'owner':
    case 'action':
    case 'pair':
    case 'template':
    case 'page':
      return null;
  }
}

/** Where the published description of a contract is served, under its root. */
export const descriptionPath = (root: string): string => `${root}/-/openapi.json`;
