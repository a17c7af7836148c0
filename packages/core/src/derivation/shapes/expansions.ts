import type { Expanded, Member, Via } from '../../contract/index.js';
import { appendAll, ownerRoleOf, ownsItself, roleOf, type Relationship } from '../../model/index.js';
import { becauseSet, becauseSetAt, placementOf, valueOf, type DerivationContext } from '../context.js';
import { memberName } from '../names/members.js';
import type { PlacedResource } from '../place/index.js';

/** What can be answered inside a record, by the name of its entity. */
export type Expansions = ReadonlyMap<string, readonly Member[]>;

const NONE: readonly Member[] = [];
const known = new WeakMap<DerivationContext, Expansions>();

/** Found once, when the path tree stands: what a record links to can be answered inside it, where that is offered. */
export function findExpansions(context: DerivationContext, resources: readonly PlacedResource[]): void {
  const found = new Map<string, Member[]>();
  const offering = resources.filter(({ id }) => valueOf(context, 'expand', { resource: id }) === 'on');
  if (offering.length > 0) {
    const exposed = new Map<string, PlacedResource>();
    for (const resource of resources)
      if (resource.canonical && (resource.kind === 'item' || resource.kind === 'singleton'))
        exposed.set(resource.id, resource);
    const names = new Set([...exposed.values()].flatMap(({ entity }) => entity ?? []));
    for (const { entity } of exposed.values())
      if (entity !== null) found.set(entity, toOne(context, entity, names));
    for (const resource of resources) {
      const above = exposed.get(resource.parent ?? '')?.entity;
      const members = above == null ? undefined : found.get(above);
      if (members !== undefined) appendAll(members, below(context, resource));
    }
    for (const [entity, members] of found) found.set(entity, distinct(members));
    leaveOffered(context, found, offering);
  }
  known.set(context, found);
}

/** Leaves what can be asked for somewhere: what stands inside what is offered, as many steps deep as is taken there. */
function leaveOffered(
  context: DerivationContext,
  found: Map<string, Member[]>,
  offering: readonly PlacedResource[],
): void {
  /** By the name of an entity, how many steps lead on from it where most do. */
  const steps = new Map<string, number>();
  const reach = (entity: string, left: number, resource: string): void => {
    if ((steps.get(entity) ?? 0) >= left) return;
    const members = found.get(entity) ?? [];
    if (!steps.has(entity) && valueOf(context, 'expand') === 'off')
      found.set(
        entity,
        members.map((member) => offeredAt(context, member, resource)),
      );
    steps.set(entity, left);
    for (const { source } of members)
      if (source.kind === 'expanded') reach(source.entity, left - 1, resource);
  };
  for (const { id, entity } of offering)
    if (entity !== null) reach(entity, valueOf(context, 'expandDepth', { resource: id }), id);
  for (const entity of [...found.keys()]) if (!steps.has(entity)) found.delete(entity);
}

/** The member with the choice that offers it, where that was made for one resource. */
function offeredAt(context: DerivationContext, member: Member, resource: string): Member {
  const statements = member.source.kind === 'expanded' ? [{ id: member.source.relationship }] : [];
  const reason = becauseSetAt(
    context,
    'member.expanded',
    ['expand', 'expandDepth'],
    { resource },
    ...statements,
  );
  return { ...member, reasons: [reason] };
}

export const expansionsOf = (context: DerivationContext, entity: string): readonly Member[] =>
  known.get(context)?.get(entity) ?? NONE;

/** The owner, and what its references point at. */
function toOne(context: DerivationContext, entity: string, exposed: ReadonlySet<string>): Member[] {
  const owns = context.index.ownerOf.get(entity);
  const owner =
    owns === undefined || !exposed.has(owns.from)
      ? []
      : [expanded(context, owns, 'owner', owns.from, ownerRoleOf(owns), null)];
  const referred = (context.index.refersFrom.get(entity) ?? [])
    .filter(({ id, to }) => exposed.has(to) && placementOf(context, 'reference', id) !== 'inline')
    .map((refers) => expanded(context, refers, 'referred', refers.to, roleOf(refers), null));
  return [...owner, ...referred];
}

/** What is listed or kept below a record. */
function below(context: DerivationContext, { id, via, kind, entity }: PlacedResource): Member[] {
  const statement = context.index.relationshipById.get(via?.relationship ?? '');
  if (via === null || entity === null || statement === undefined || kind === 'reference' || kind === 'pair')
    return [];
  const isBack = via.direction === 'referrers' || via.direction === 'paired-back';
  const role = isBack && statement.back !== null ? statement.back : roleOf(statement);
  const isMany = kind !== 'singleton';
  const limit = isMany ? mostInside(context, id) : null;
  return [expanded(context, statement, via.direction, entity, role, limit)];
}

/** As many as were chosen, or as the largest page of the list has. */
function mostInside(context: DerivationContext, list: string): number {
  const at = { resource: list, verb: 'list' };
  const chosen = valueOf(context, 'expandSize', at);
  return chosen === 0 ? valueOf(context, 'maxPageSize', at) : chosen;
}

function expanded(
  context: DerivationContext,
  statement: Relationship,
  way: 'owner' | Via['direction'],
  entity: string,
  role: string,
  limit: number | null,
): Member {
  const source: Expanded = {
    kind: 'expanded',
    relationship: statement.id,
    way,
    entity,
    relation: role,
    limit,
    isAlways: false,
  };
  const shape = { kind: 'shape', shape: entity } as const;
  const isAlways = limit === null && isNeverAbsent(statement, way);
  return {
    name: memberName(context, role),
    mode: 'returned',
    required: false,
    nullable: limit === null && !isAlways,
    type: limit === null ? shape : { kind: 'list', of: shape, min: null, max: limit },
    source,
    description: null,
    default: null,
    example: null,
    reasons: [becauseSet(context, 'member.expanded', ['expand', 'expandDepth'], statement)],
  };
}

/** A required reference, a required slot, and an owner are always there. */
function isNeverAbsent(statement: Relationship, way: 'owner' | Via['direction']): boolean {
  if (statement.kind === 'owns')
    return way === 'owner' ? !ownsItself(statement) : statement.cardinality === 'one';
  return statement.kind === 'refers' && way === 'referred' && statement.cardinality === 'one';
}

function distinct(members: readonly Member[]): Member[] {
  const names = new Set<string>();
  return members.filter(({ name }) => {
    if (names.has(name)) return false;
    names.add(name);
    return true;
  });
}
