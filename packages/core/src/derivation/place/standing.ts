import type { Place, PlaceOf, SubjectKind } from '../../arrangement/index.js';
import type { Mend } from '../../contract/index.js';
import { isSingleton, keyOf, once, ownsItself, type Entity, type Owns } from '../../model/index.js';
import { because, becausePlaced, entityNamed, placed, type Deriving } from '../context.js';
import { itemId } from './tree.js';

/** Whether the records of an entity have an address, or stand inside their owner. */
export type Standing = 'exposed' | 'inline' | 'hidden';

/** Where what is owned really stands: a place that cannot be given is reported, and is `nested` instead. */
export type OwnedPlace = PlaceOf<'owned'>;

export interface Standings {
  /** By the name of an entity. */
  readonly of: ReadonlyMap<string, Standing>;
  /** By the identity of an `owns many`. */
  readonly owned: ReadonlyMap<string, OwnedPlace>;
}

/** Decides for every entity whether it has an address, from its place and that of its owners. */
export const standingsOf = once((deriving: Deriving): Standings => {
  const { index } = deriving;
  const owned = new Map<string, OwnedPlace>();
  for (const owns of index.ownerOf.values()) {
    if (owns.cardinality === 'many' && !ownsItself(owns)) owned.set(owns.id, possiblePlace(deriving, owns));
  }
  const of = new Map<string, Standing>();
  for (const entity of index.entities.values()) settle(deriving, owned, of, entity.name);
  for (const owns of index.ownerOf.values()) reportUnreachable(deriving, { of, owned }, owns);
  return { of, owned };
});

/** Climbs to the first owner that is settled, then settles all below it. */
function settle(
  deriving: Deriving,
  owned: ReadonlyMap<string, OwnedPlace>,
  of: Map<string, Standing>,
  name: string,
): void {
  const waiting: string[] = [];
  for (let step = name; !of.has(step);) {
    waiting.push(step);
    const owner = deriving.index.ownerOf.get(step);
    if (owner === undefined || ownsItself(owner)) break;
    step = owner.from;
  }
  for (let step = waiting.pop(); step !== undefined; step = waiting.pop())
    of.set(step, standingOf(deriving, owned, of, entityNamed(deriving, step)));
}

function standingOf(
  deriving: Deriving,
  owned: ReadonlyMap<string, OwnedPlace>,
  of: ReadonlyMap<string, Standing>,
  entity: Entity,
): Standing {
  const owns = deriving.index.ownerOf.get(entity.name);
  if (owns === undefined || ownsItself(owns))
    return placed(deriving, 'entity', entity.id) === 'hidden' ? 'hidden' : 'exposed';
  const place = owned.get(owns.id) ?? placed(deriving, 'slot', owns.id);
  if (place === 'hidden') return 'hidden';
  if (place === 'flat') return 'exposed';
  const above = of.get(owns.from) ?? 'hidden';
  if (place === 'inline') return above === 'hidden' ? 'hidden' : 'inline';
  return above === 'inline' ? 'hidden' : above;
}

/** The place that was chosen, unless the key or the owner makes it impossible. */
function possiblePlace(deriving: Deriving, owns: Owns): OwnedPlace {
  const place = placed(deriving, 'owned', owns.id);
  if (place === 'nested' || place === 'inline' || place === 'hidden') return place;
  const child = entityNamed(deriving, owns.to);
  const key = keyOf(child).attribute;
  if (key.key?.within != null) {
    deriving.findings.push({
      id: 'key.scoped-root',
      severity: 'error',
      message: `${child.name} cannot be placed ${place}: its key ${key.name} is unique only under its ${key.key.within}. It stays nested.`,
      about: itemId(child),
      reasons: [
        because('place.scoped', key),
        becausePlaced(deriving, `place.${place}`, 'owned', owns.id, owns),
      ],
      mends: [{ title: 'Place it nested', act: placing('owned', owns, 'nested') }],
    });
    return 'nested';
  }
  if (place !== 'flat' || !isSingleton(deriving.index, owns.from)) return place;
  deriving.findings.push({
    id: 'owner.keyless',
    severity: 'doubtful',
    message: `${child.name} cannot be placed flat: a ${owns.from} has no id that its body could name. It stays nested.`,
    about: itemId(child),
    reasons: [
      because('place.keyless-owner', entityNamed(deriving, owns.from)),
      becausePlaced(deriving, 'place.flat', 'owned', owns.id, owns),
    ],
    mends: [{ title: 'Place it nested', act: placing('owned', owns, 'nested') }],
  });
  return 'nested';
}

/** Something was to stand below its owner, which has no address itself. */
function reportUnreachable(deriving: Deriving, { of, owned }: Standings, owns: Owns): void {
  const isMany = owns.cardinality === 'many';
  const place = owned.get(owns.id) ?? (ownsItself(owns) ? null : placed(deriving, 'slot', owns.id));
  if (place === null || place === 'hidden' || of.get(owns.to) !== 'hidden') return;
  const child = entityNamed(deriving, owns.to);
  const canStandAlone =
    isMany && keyOf(child).attribute.key?.within == null && !isSingleton(deriving.index, owns.from);
  deriving.findings.push({
    id: 'entity.unreachable',
    severity: 'doubtful',
    message: `Nothing leads to ${child.name}: it stands below ${owns.from}, which has no path.`,
    about: child.id,
    reasons: [because('place.unreachable', owns, entityNamed(deriving, owns.from))],
    mends: [
      ...(canStandAlone ? [{ title: 'Place it flat', act: placing('owned', owns, 'flat') }] : []),
      ...(of.get(owns.from) === 'inline'
        ? [{ title: 'Place it inline too', act: placing(isMany ? 'owned' : 'slot', owns, 'inline') }]
        : []),
      { title: 'Hide it too', act: placing(isMany ? 'owned' : 'slot', owns, 'hidden') },
    ],
  });
}

const placing = (of: SubjectKind, owns: Owns, place: Place): Mend['act'] => ({
  kind: 'placement',
  of,
  subject: owns.id,
  place,
});
