import type { Expanded, Member, Via } from '../../contract/index.js';
import { appendAll, ownerRoleOf, ownsItself, roleOf, type Relationship } from '../../model/index.js';
import { becauseSet, placed, valueOf, type Deriving } from '../context.js';
import { memberName } from '../names/members.js';
import type { Placed } from '../place/index.js';

/** What can be answered inside a record, by the name of its entity. */
export type Expansions = ReadonlyMap<string, readonly Member[]>;

const NONE: readonly Member[] = [];
const known = new WeakMap<Deriving, Expansions>();

/** Found once, when the path tree stands: what a record links to can be answered inside it. */
export function findExpansions(deriving: Deriving, resources: readonly Placed[]): void {
  const found = new Map<string, Member[]>();
  if (valueOf(deriving, 'expand') === 'on') {
    const exposed = new Map<string, Placed>();
    for (const resource of resources)
      if (resource.canonical && (resource.kind === 'item' || resource.kind === 'singleton'))
        exposed.set(resource.id, resource);
    const names = new Set([...exposed.values()].flatMap(({ entity }) => entity ?? []));
    for (const { entity } of exposed.values())
      if (entity !== null) found.set(entity, toOne(deriving, entity, names));
    for (const resource of resources) {
      const above = exposed.get(resource.parent ?? '')?.entity;
      const members = above == null ? undefined : found.get(above);
      if (members !== undefined) appendAll(members, below(deriving, resource));
    }
    for (const [entity, members] of found) found.set(entity, distinct(members));
  }
  known.set(deriving, found);
}

export const expansionsOf = (deriving: Deriving, entity: string): readonly Member[] =>
  known.get(deriving)?.get(entity) ?? NONE;

/** The owner, and what its references point at. */
function toOne(deriving: Deriving, entity: string, exposed: ReadonlySet<string>): Member[] {
  const owns = deriving.index.ownerOf.get(entity);
  const owner =
    owns === undefined || !exposed.has(owns.from)
      ? []
      : [expanded(deriving, owns, 'owner', owns.from, ownerRoleOf(owns), null)];
  const referred = (deriving.index.refersFrom.get(entity) ?? [])
    .filter(({ id, to }) => exposed.has(to) && placed(deriving, 'reference', id) !== 'inline')
    .map((refers) => expanded(deriving, refers, 'referred', refers.to, roleOf(refers), null));
  return [...owner, ...referred];
}

/** What is listed or kept below a record. */
function below(deriving: Deriving, { via, kind, entity }: Placed): Member[] {
  const statement = deriving.index.relationshipById.get(via?.relationship ?? '');
  if (via === null || entity === null || statement === undefined || kind === 'reference' || kind === 'pair')
    return [];
  const isBack = via.direction === 'referrers' || via.direction === 'paired-back';
  const role = isBack && statement.back !== null ? statement.back : roleOf(statement);
  const isMany = kind !== 'singleton';
  const limit = isMany ? valueOf(deriving, 'maxPageSize') : null;
  return [expanded(deriving, statement, via.direction, entity, role, limit)];
}

function expanded(
  deriving: Deriving,
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
    name: memberName(deriving, role),
    mode: 'returned',
    required: false,
    nullable: limit === null && !isAlways,
    type: limit === null ? shape : { kind: 'list', of: shape, min: null, max: limit },
    source,
    description: null,
    default: null,
    example: null,
    reasons: [becauseSet(deriving, 'member.expanded', ['expand', 'expandDepth'], statement)],
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
