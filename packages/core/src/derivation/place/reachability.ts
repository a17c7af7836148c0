import type { Placement, PlacementFor, SubjectKind } from '../../arrangement/index.js';
import type { Finding, QuickFix } from '../../contract/index.js';
import {
  appendAll,
  isSingleton,
  keyOf,
  memoize,
  ownsItself,
  type Entity,
  type Owns,
} from '../../model/index.js';
import { because, becausePlaced, entityNamed, placementOf, type DerivationContext } from '../context.js';
import { isPlacedSingle } from './single.js';
import { itemId } from './tree.js';

/** Whether the records of an entity have an address, or stand inside their owner. */
export type Reachability = 'exposed' | 'inline' | 'hidden';

/** Where what is owned really stands: a place that cannot be given is reported, and is `nested` instead. */
export type OwnedPlacement = PlacementFor<'owned'>;

export interface ReachabilityMap {
  /** By the name of an entity. */
  readonly of: ReadonlyMap<string, Reachability>;
  /** By the identity of an `owns many`. */
  readonly owned: ReadonlyMap<string, OwnedPlacement>;
  /** Places that cannot be given, and what nothing leads to. */
  readonly findings: readonly Finding[];
}

/** Decides for every entity whether it has an address, from its place and that of its owners. */
export const reachabilityOf = memoize((context: DerivationContext): ReachabilityMap => {
  const { index } = context;
  const owned = new Map<string, OwnedPlacement>();
  const findings: Finding[] = [];
  for (const owns of index.ownerOf.values()) {
    if (owns.cardinality !== 'many' || ownsItself(owns)) continue;
    const problem = placementProblem(context, owns);
    owned.set(owns.id, problem === null ? placementOf(context, 'owned', owns.id) : 'nested');
    if (problem !== null) findings.push(problem);
  }
  const of = new Map<string, Reachability>();
  for (const entity of index.entities.values()) settle(context, owned, of, entity.name);
  for (const owns of index.ownerOf.values()) appendAll(findings, unreachable(context, { of, owned }, owns));
  return { of, owned, findings };
});

/** Climbs to the first owner that is settled, then settles all below it. */
function settle(
  context: DerivationContext,
  owned: ReadonlyMap<string, OwnedPlacement>,
  of: Map<string, Reachability>,
  name: string,
): void {
  const waiting: string[] = [];
  for (let step = name; !of.has(step);) {
    waiting.push(step);
    const owner = context.index.ownerOf.get(step);
    if (owner === undefined || ownsItself(owner)) break;
    step = owner.from;
  }
  for (let step = waiting.pop(); step !== undefined; step = waiting.pop())
    of.set(step, reachabilityOfOne(context, owned, of, entityNamed(context, step)));
}

function reachabilityOfOne(
  context: DerivationContext,
  owned: ReadonlyMap<string, OwnedPlacement>,
  of: ReadonlyMap<string, Reachability>,
  entity: Entity,
): Reachability {
  const owns = context.index.ownerOf.get(entity.name);
  if (owns === undefined || ownsItself(owns))
    return placementOf(context, 'entity', entity.id) === 'hidden' ? 'hidden' : 'exposed';
  const place = owned.get(owns.id) ?? placementOf(context, 'slot', owns.id);
  if (place === 'hidden') return 'hidden';
  if (place === 'flat') return 'exposed';
  const above = of.get(owns.from) ?? 'hidden';
  if (place === 'inline') return above === 'hidden' ? 'hidden' : 'inline';
  return above === 'inline' ? 'hidden' : above;
}

/** Why the key or the owner makes the place impossible that was chosen; `null` where it is possible. */
function placementProblem(context: DerivationContext, owns: Owns): Finding | null {
  const place = placementOf(context, 'owned', owns.id);
  if (place === 'nested' || place === 'inline' || place === 'hidden') return null;
  const child = entityNamed(context, owns.to);
  const key = keyOf(child).attribute;
  if (key.key?.within != null) {
    return {
      id: 'key.scoped-root',
      severity: 'error',
      message: `${child.name} cannot be placed ${place}: its key ${key.name} is unique only under its ${key.key.within}. It stays nested.`,
      about: itemId(child),
      reasons: [
        because('place.scoped', key),
        becausePlaced(context, `place.${place}`, 'owned', owns.id, owns),
      ],
      quickFixes: [{ title: 'Place it nested', answer: placing('owned', owns, 'nested') }],
    };
  }
  const isKeyless =
    isSingleton(context.index, owns.from) || isPlacedSingle(context, entityNamed(context, owns.from));
  if (place !== 'flat' || !isKeyless) return null;
  return {
    id: 'owner.keyless',
    severity: 'doubtful',
    message: `${child.name} cannot be placed flat: a ${owns.from} has no id that its body could name. It stays nested.`,
    about: itemId(child),
    reasons: [
      because('place.keyless-owner', entityNamed(context, owns.from)),
      becausePlaced(context, 'place.flat', 'owned', owns.id, owns),
    ],
    quickFixes: [{ title: 'Place it nested', answer: placing('owned', owns, 'nested') }],
  };
}

/** Something was to stand below its owner, which has no address itself. */
function unreachable(
  context: DerivationContext,
  { of, owned }: Omit<ReachabilityMap, 'findings'>,
  owns: Owns,
): readonly Finding[] {
  const isMany = owns.cardinality === 'many';
  const place = owned.get(owns.id) ?? (ownsItself(owns) ? null : placementOf(context, 'slot', owns.id));
  if (place === null || place === 'hidden' || of.get(owns.to) !== 'hidden') return [];
  const child = entityNamed(context, owns.to);
  const canStandAlone =
    isMany && keyOf(child).attribute.key?.within == null && !isSingleton(context.index, owns.from);
  return [
    {
      id: 'entity.unreachable',
      severity: 'doubtful',
      message: `Nothing leads to ${child.name}: it stands below ${owns.from}, which has no path.`,
      about: child.id,
      reasons: [because('place.unreachable', owns, entityNamed(context, owns.from))],
      quickFixes: [
        ...(canStandAlone ? [{ title: 'Place it flat', answer: placing('owned', owns, 'flat') }] : []),
        ...(of.get(owns.from) === 'inline'
          ? [{ title: 'Place it inline too', answer: placing(isMany ? 'owned' : 'slot', owns, 'inline') }]
          : []),
        { title: 'Hide it too', answer: placing(isMany ? 'owned' : 'slot', owns, 'hidden') },
      ],
    },
  ];
}

const placing = (of: SubjectKind, owns: Owns, place: Placement): QuickFix['answer'] => ({
  kind: 'placement',
  of,
  subject: owns.id,
  place,
});
