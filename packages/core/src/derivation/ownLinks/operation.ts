import type { BoundFilter, BoundParameter, LinkOperand, OwnLinkTarget } from '../../arrangement/index.js';
import {
  equalTo,
  filterTerm,
  type BoundQuery,
  type FilterParameter,
  type LinkValue,
  type Operation,
  type OwnTarget,
  type QueryParameter,
  type Segment,
  type SortSpelling,
} from '../../contract/index.js';
import {
  appendAll,
  bareObject,
  scalarText,
  type Condition,
  type Entity,
  type ScalarType,
} from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { checkOperand, Unfit } from '../customOperations/index.js';
import { memberName } from '../names/members.js';
import type { PlacedResource } from '../place/index.js';
import type { Traits } from '../shapes/index.js';
import { reachMember } from './reach.js';

/** What a link of one's own is resolved among. */
export interface LinkPlaces {
  readonly context: DerivationContext;
  readonly traits: Traits;
  readonly operations: readonly Operation[];
  readonly byId: ReadonlyMap<string, PlacedResource>;
}

type ToOperation = Extract<OwnLinkTarget, { kind: 'operation' }>;

/** A link to an operation: what fills in its path, and what it is asked for. `from`: `null` where no record offers it. */
export function resolveOperation(
  places: LinkPlaces,
  carrier: PlacedResource,
  from: Entity | null,
  target: ToOperation,
  when: Condition,
): OwnTarget {
  const { context, operations, byId } = places;
  const operation = operations.find(
    ({ resource, verb }) => resource === target.resource && verb === target.verb,
  );
  const resource = byId.get(target.resource);
  if (operation === undefined || resource === undefined)
    throw new Unfit('The operation it leads to is not offered any more.');
  // It is there only while the reference is set, which its role says by itself.
  if (resource.kind === 'reference')
    throw new Unfit('It is read where a reference leads: name the role instead of the operation.');
  const ids: Record<string, LinkValue> = bareObject();
  const query: BoundQuery[] = [];
  for (const bound of target.bound) {
    const segment = idNamed(context, resource, bound.parameter);
    if (segment === undefined) query.push(resolveInput(places, from, operation, bound));
    else ids[segment.parameter] = resolveId(places, from, segment, bound);
  }
  for (const filter of target.filters) query.push(resolveFilter(places, from, operation, filter));
  appendAll(query, resolveOrder(operation, target.order));
  if (target.size !== null) query.push(resolveSize(operation, target.size));
  const isSet = new Set(query.map(({ name }) => name));
  return {
    kind: 'operation',
    resource: resource.id,
    operation: operation.id,
    ids,
    query,
    open: {
      path: openIds(context, carrier, from, resource).filter((name) => !Object.hasOwn(ids, name)),
      query: operation.query.flatMap((parameter) =>
        parameter.role === 'input' && parameter.default === null && !isSet.has(parameter.name)
          ? [parameter.name]
          : [],
      ),
    },
    when,
  };
}

type IdSegment = Extract<Segment, { kind: 'id' }>;

/** The place of the id of an entity in a path, by the identity of the entity; the last where there are several. */
function idNamed(
  { index }: DerivationContext,
  { segments }: PlacedResource,
  parameter: string,
): IdSegment | undefined {
  return segments.findLast(
    (segment): segment is IdSegment =>
      segment.kind === 'id' && index.entities.get(segment.entity)?.id === parameter,
  );
}

/** Path parameters that neither the record nor the path that offers the link has ids for. */
function openIds(
  { index }: DerivationContext,
  carrier: PlacedResource,
  from: Entity | null,
  { kind, segments }: PlacedResource,
): readonly string[] {
  const known = new Set<string>();
  for (const segment of carrier.segments) if (segment.kind === 'id') known.add(segment.entity);
  // A record has the ids of its owners, wherever it is read.
  const owners = new Set<string>();
  for (let name = from?.name; name !== undefined && !owners.has(name); name = index.ownerOf.get(name)?.from)
    owners.add(name);
  // With whom a record is paired its own ids do not tell.
  const isPaired = (at: number): boolean => kind === 'pair' && at === segments.length - 1;
  return segments.flatMap((segment, at) =>
    segment.kind === 'id' && (isPaired(at) || (!known.has(segment.entity) && !owners.has(segment.entity)))
      ? [segment.parameter]
      : [],
  );
}

function resolveId(
  { context, traits }: LinkPlaces,
  from: Entity | null,
  segment: IdSegment,
  { value }: BoundParameter,
): LinkValue {
  return resolveValue(context, traits, from, segment.parameter, segment.type, value);
}

function resolveInput(
  { context, traits }: LinkPlaces,
  from: Entity | null,
  operation: Operation,
  { parameter, value }: BoundParameter,
): BoundQuery {
  const name = memberName(context, parameter);
  const found = operation.query.find((one) => one.role === 'input' && one.name === name);
  if (found?.role !== 'input') throw new Unfit(`${operation.id} has no parameter ${parameter}.`);
  return { name, before: '', value: resolveValue(context, traits, from, name, found.type, value) };
}

function resolveFilter(
  { context, traits }: LinkPlaces,
  from: Entity | null,
  operation: Operation,
  { member, operator, value }: BoundFilter,
): BoundQuery {
  const filter = operation.query.find(
    (one): one is FilterParameter => one.role === 'filter' && isOf(one.field, member),
  );
  if (filter === undefined) throw new Unfit(`${operation.id} cannot be filtered by ${member}.`);
  if (!filter.operators.includes(operator))
    throw new Unfit(`${operation.id} compares ${filter.name} by ${filter.operators.join(', ')} only.`);
  const bound = resolveValue(context, traits, from, filter.name, filter.type, value);
  const { name, before } = filterTerm(filter, operator);
  if (operator !== 'eq' || bound.kind !== 'literal') return { name, before, value: bound };
  return { name, before, value: { kind: 'literal', text: equalTo(filter, bound.text) } };
}

function isOf(field: FilterParameter['field'], member: string): boolean {
  if (field.kind === 'through') return false;
  return field.kind === 'attribute' || field.kind === 'computed'
    ? field.attribute === member
    : field.relationship === member;
}

function resolveValue(
  context: DerivationContext,
  traits: Traits,
  from: Entity | null,
  name: string,
  type: ScalarType,
  value: LinkOperand,
): LinkValue {
  if (value.kind === 'member') {
    if (from === null)
      throw new Unfit('No record offers it, so that there is no attribute to take a value of.');
    const reached = reachMember(context, traits, from, value);
    if (reached.type.kind !== type.kind)
      throw new Unfit(`${reached.name} is ${reached.type.kind}, but ${name} is ${type.kind}.`);
    return reached.value;
  }
  checkOperand(name, type, value);
  return value.kind === 'now' ? { kind: 'now', type } : { kind: 'literal', text: scalarText(value.value) };
}

/** Keys to sort by as the list spells them. */
function resolveOrder(operation: Operation, order: ToOperation['order']): readonly BoundQuery[] {
  if (order.length === 0) return [];
  const sort = operation.query.find(
    (one): one is Extract<QueryParameter, { role: 'sort' }> => one.role === 'sort',
  );
  if (sort === undefined) throw new Unfit(`${operation.id} cannot be sorted.`);
  const keys = order.map(({ member, descending }) => {
    const key = sort.keys.find(({ field }) => isOf(field, member));
    if (key === undefined) throw new Unfit(`${operation.id} cannot be sorted by ${member}.`);
    return { name: key.name, descending };
  });
  const beside = operation.query.find(({ role }) => role === 'order')?.name ?? 'order';
  return sortTerms(sort.style, keys).map(([isDirection, text]): BoundQuery => ({
    name: isDirection ? beside : sort.name,
    before: '',
    value: { kind: 'literal', text },
  }));
}

function sortTerms(
  style: SortSpelling,
  keys: readonly { readonly name: string; readonly descending: boolean }[],
): readonly (readonly [isDirection: boolean, text: string])[] {
  const joined = (write: (name: string, descending: boolean) => string): string =>
    keys.map(({ name, descending }) => write(name, descending)).join(',');
  switch (style) {
    case 'minus':
      return [[false, joined((name, descending) => `${descending ? '-' : ''}${name}`)]];
    case 'suffix':
      return [[false, joined((name, descending) => `${name}${descending ? ':desc' : ''}`)]];
    case 'repeated':
      return keys.map(({ name, descending }) => [false, `${name}${descending ? ',desc' : ''}`]);
    case 'beside':
      return [
        [false, joined((name) => name)],
        ...(keys.some(({ descending }) => descending)
          ? ([[true, joined((_, descending) => (descending ? 'desc' : 'asc'))]] as const)
          : []),
      ];
  }
}

function resolveSize(operation: Operation, size: number): BoundQuery {
  const found = operation.query.find(
    (one): one is Extract<QueryParameter, { role: 'size' }> => one.role === 'size',
  );
  if (found === undefined) throw new Unfit(`${operation.id} has no size.`);
  if (size > found.max) throw new Unfit(`${operation.id} answers at most ${found.max} records.`);
  return { name: found.name, before: '', value: { kind: 'literal', text: String(size) } };
}
