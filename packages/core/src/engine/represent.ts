import { pathTo, canonicalPath } from './paths.js';
import {
  equalTo,
  type DerivedTarget,
  type Link,
  type Member,
  type MemberType,
  type Resource,
  type Shape,
} from '../contract/index.js';
import {
  bareObject,
  isJsonObject,
  scalarText,
  type Json,
  type Row,
  entryOf,
  memoize,
} from '../model/index.js';
import { computedOf } from './computed.js';
import { pointedAt, type RecordView } from './dataset.js';
import { allows, holdsFor, transitionOf } from './lifeCycle.js';
import { EMBEDDED } from './form.js';
import { expandedMembers, NOTHING_EXPANDED, type ExpandTree } from './list/expand.js';
import { linksOf, withLinks } from './links.js';
import { isOwnTarget, ownLink } from './ownLinks.js';
import { listAt, parametersOf } from './list/listAt.js';
import type { Projection } from './list/listQuery.js';
import { inlineRows, relatedBy } from './related.js';
import { indexOf, shapeNamed, storageNamed, storages, type RequestContext } from './service.js';

/** Everything a record has, and nothing inside it. */
export const WHOLE: Projection = { fields: null, expand: NOTHING_EXPANDED };

/** A record as its item shape shows it, links included. */
export const representRecord = (
  service: RequestContext,
  view: RecordView,
  record: Row,
  showing: Projection = WHOLE,
): Record<string, Json> => representAs(service, view, record, 'item', showing);

/** A record as a list shows it, which may be less of it. */
export const representListed = (
  service: RequestContext,
  view: RecordView,
  record: Row,
  showing: Projection = WHOLE,
): Record<string, Json> => representAs(service, view, record, 'member', showing);

function representAs(
  service: RequestContext,
  view: RecordView,
  record: Row,
  purpose: 'item' | 'member',
  { fields, expand, isInside = false }: Projection,
): Record<string, Json> {
  const storage = storages(service).byId.get(record.entity);
  if (storage === undefined) throw new Error(`The dataset has no entity ${record.entity}.`);
  const { name } = storage.entity;
  const listed = purpose === 'member' ? indexOf(service).shapes.get(`${name}.member`) : undefined;
  const all = representMembers(service, view, listed ?? shapeNamed(service, name), record);
  const body = fields === null ? all : onlyNamed(all, fields);
  const inside = isInside ? expand : withAlways(service, name, expand);
  if (inside.size > 0) body[EMBEDDED] = embedded(service, view, name, record, inside);
  const resource = indexOf(service).canonical.get(name);
  if (resource === undefined) return body;
  const found = (link: Link): Json => recordLink(service, view, link, record);
  if (purpose === 'item' && !isInside) withLinks(service, body, resource, found);
  else {
    const links = linksOf(service, resource, purpose === 'item' ? 'items' : 'lists', found);
    if (links !== null) body[service.contract.names.links] = links;
  }
  return body;
}

/** What is inside without being asked, by the name of the entity; kept for one request. */
const alwaysInside = memoize<RequestContext, Map<string, ExpandTree>>(() => new Map());

/** What is asked for inside, and what is there without being asked. */
function withAlways(service: RequestContext, entity: string, expand: ExpandTree): ExpandTree {
  const members = expandedMembers(service.contract, entity);
  if (members.size === 0) return expand;
  const always = entryOf(alwaysInside(service), entity, () => {
    const shown = [...members].filter(([, { isAlways }]) => isAlways);
    return new Map(shown.map(([name]) => [name, new Map()]));
  });
  if (always.size === 0) return expand;
  return expand.size === 0 ? always : new Map([...always, ...expand]);
}

function onlyNamed(all: Record<string, Json>, fields: ReadonlySet<string>): Record<string, Json> {
  const body = bareObject();
  for (const [name, value] of Object.entries(all)) if (fields.has(name)) body[name] = value;
  return body;
}

/** What is answered inside a record, by link relation; `form.ts` gives it its place. */
function embedded(
  service: RequestContext,
  view: RecordView,
  entity: string,
  record: Row,
  tree: ExpandTree,
): Record<string, Json> {
  const members = expandedMembers(service.contract, entity);
  const inside = bareObject();
  for (const [name, below] of tree) {
    const source = members.get(name);
    if (source === undefined) continue;
    const records = relatedBy(service, view, record, source).map((other) =>
      insideOnce(service, view, other, below),
    );
    const value = source.limit === null ? (records[0] ?? null) : records;
    if (!isLeftOut(service, value)) inside[source.relation] = { name, value };
  }
  return inside;
}

/** Made once a request, however many records have it inside. The trees belong to one request. */
const made = memoize<ExpandTree, Map<number, Json>>(() => new Map());

const insideOnce = (service: RequestContext, view: RecordView, record: Row, tree: ExpandTree): Json =>
  entryOf(made(tree), record.rid, () =>
    representRecord(service, view, record, { fields: null, expand: tree, isInside: true }),
  );

/** The members of a shape that come from the record itself; unset ones are null. */
export function representMembers(
  service: RequestContext,
  view: RecordView,
  shape: Shape,
  record: Row,
): Record<string, Json> {
  const body = bareObject();
  for (const member of shape.members) {
    const value = memberValue(service, view, member, record);
    if (value !== undefined && !isLeftOut(service, value)) body[member.name] = value;
  }
  return body;
}

/** What has no value may be left out of answers. */
const isLeftOut = ({ contract }: RequestContext, value: Json): boolean =>
  value === null && contract.representation.unset === 'left out';

/** The value of a member as it travels; `undefined` for members that no record holds. */
export function memberValue(
  service: RequestContext,
  view: RecordView,
  member: Member,
  record: Row,
): Json | undefined {
  switch (member.source.kind) {
    case 'attribute':
      return toWire(service, member.type, record.values[member.source.attribute] ?? null);
    case 'computed':
      return computedOf(service, view, record, member.source.attribute);
    case 'reference':
    case 'owner': {
      const target = pointedAt(view, record, member.source.relationship);
      return target === null
        ? null
        : (target.values[storageNamed(service, member.source.entity).key.id] ?? null);
    }
    case 'inline':
      return inlineValue(service, view, member.source, record);
    case 'carried':
    case 'expanded':
    case 'slot':
    case 'links':
    case 'items':
    case 'page':
    case 'input':
    case 'token':
    case 'count':
    case 'aggregate':
    case 'fixed':
      return undefined;
  }
}

/** What a record owns and shows inside itself, in the order of the key. */
function inlineValue(
  service: RequestContext,
  view: RecordView,
  source: Extract<Member['source'], { kind: 'inline' }>,
  record: Row,
): Json {
  const shape = shapeNamed(service, source.entity);
  const inside = inlineRows(service, view, source, record).map((row) =>
    representMembers(service, view, shape, row),
  );
  return source.isMany ? inside : (inside[0] ?? null);
}

/** What a value holds, as it travels. */
export const representValue = (service: RequestContext, name: string, stored: Json): Json =>
  toWire(service, { kind: 'shape', shape: name }, stored);

/** From the stored form of a value, keyed by identities, to the members a client sees. */
function toWire(service: RequestContext, type: MemberType, stored: Json): Json {
  if (stored === null) return null;
  if (type.kind === 'list')
    return Array.isArray(stored) ? stored.map((item: Json) => toWire(service, type.of, item)) : null;
  if (type.kind !== 'shape' || !isJsonObject(stored)) return stored;
  const object = bareObject();
  for (const member of shapeNamed(service, type.shape).members) {
    if (member.source.kind !== 'attribute') continue;
    const value = toWire(service, member.type, stored[member.source.attribute] ?? null);
    if (!isLeftOut(service, value)) object[member.name] = value;
  }
  return object;
}

/** Where a link of a record leads; `null` where it leads nowhere now. */
const recordLink = (service: RequestContext, view: RecordView, { target }: Link, record: Row): Json =>
  isOwnTarget(target)
    ? ownLink(service, view, target, record)
    : hrefObject(recordHref(service, view, target, record));

const hrefObject = (href: string | null): Json => (href === null ? null : { href });

function recordHref(
  service: RequestContext,
  view: RecordView,
  target: DerivedTarget,
  record: Row,
): string | null {
  switch (target.kind) {
    case 'self':
      return canonicalPath(service, view, record);
    case 'about':
      return service.contract.root + target.path;
    case 'resource': {
      const resource = indexOf(service).resources.get(target.resource);
      return resource === undefined ? null : pathTo(service, view, resource, record);
    }
    case 'read': {
      const resource = indexOf(service).resources.get(target.resource);
      const isSet = pointedAt(view, record, target.relationship) !== null;
      return resource === undefined || !isSet ? null : pathTo(service, view, resource, record);
    }
    case 'filtered': {
      const list = indexOf(service).resources.get(target.resource);
      const path = list === undefined ? null : pathTo(service, view, list, null);
      const key = storages(service).byId.get(record.entity)?.key;
      if (path === null || key === undefined) return null;
      const value = equalityValue(
        service,
        target.resource,
        target.parameter,
        scalarText(record.values[key.id]),
      );
      return `${path}?${encodeURIComponent(target.parameter)}=${encodeURIComponent(value)}`;
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
      return allows(found, record, service.now) ? pathTo(service, view, resource, record) : null;
    }
    case 'custom': {
      const resource = indexOf(service).resources.get(target.resource);
      const isAllowed = holdsFor(service, record, target.when, service.now);
      return resource === undefined || !isAllowed ? null : pathTo(service, view, resource, record);
    }
    case 'pair':
    case 'template':
    case 'items':
    case 'page':
    case 'description':
      return null;
  }
}

/** The entry: where everything begins. */
export function representEntry(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
): Record<string, Json> {
  const body = bareObject();
  withLinks(service, body, resource, ({ target }) =>
    isOwnTarget(target) ? ownLink(service, view, target, null) : hrefObject(entryHref(service, view, target)),
  );
  return body;
}

function entryHref(service: RequestContext, view: RecordView, target: DerivedTarget): string | null {
  switch (target.kind) {
    case 'self':
      return service.contract.root === '' ? '/' : service.contract.root;
    case 'description':
      return descriptionPath(service.contract.root);
    case 'about':
      return service.contract.root + target.path;
    case 'resource': {
      const resource = indexOf(service).resources.get(target.resource);
      return resource === undefined ? null : pathTo(service, view, resource, null);
    }
    case 'reference':
    case 'read':
    case 'filtered':
    case 'owner':
    case 'action':
    case 'custom':
    case 'pair':
    case 'template':
    case 'items':
    case 'page':
      return null;
  }
}

/** The value by which a list is narrowed to what equals a text. */
function equalityValue(service: RequestContext, list: string, name: string, text: string): string {
  const operation = listAt(service, list);
  const filter = operation === undefined ? undefined : parametersOf(operation).get(name);
  return filter?.role === 'filter' ? equalTo(filter, text) : text;
}

/** Where the published description of a contract is served, under its root. */
export const descriptionPath = (root: string): string => `${root}/-/openapi.json`;
