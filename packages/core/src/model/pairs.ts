import { plainAttribute } from './attribute.js';
import { camelCase, singular } from './names.js';
import type { EntityStorage } from './entityStorage.js';
import { onRemoveOf, roleOf, type ModelIndex } from './lookup.js';
import type { Attribute, Entity, PairsWith, RefersTo } from './types.js';

/** Under these identities a pair holds its two sides and what it carries. */
export const pairFrom = (pairs: PairsWith): string => `${pairs.id}#from`;
export const pairTo = (pairs: PairsWith): string => `${pairs.id}#to`;
export const pairCarried = (pairs: PairsWith): string => `${pairs.id}#carried`;

/** The member that shows what a pair carries: the name of the value. */
export const carriedName = (value: string): string => camelCase(value);

/** What the record type of a pairing is called: `Sailing crew`. */
export const pairTypeName = (pairs: PairsWith): string => `${pairs.from} ${roleOf(pairs)}`;

/**
 * A pair is stored as a record that refers to both of its sides, exists once for both together, and goes when
 * either of them goes.
 */
export function pairStorage(index: ModelIndex, pairs: PairsWith): EntityStorage {
  const [fromRole, toRole] = sideRoles(pairs);
  // What is paired with guards itself, or goes; what it is paired from may always go (the other side of the sentence).
  const from = side(pairs, pairFrom(pairs), pairs.from, fromRole, 'cascade');
  const to = side(
    pairs,
    pairTo(pairs),
    pairs.to,
    toRole,
    onRemoveOf(pairs) === 'restrict' ? 'restrict' : 'cascade',
  );
  const carried =
    pairs.carrying === null || !index.values.has(pairs.carrying)
      ? []
      : [carriedAttribute(pairs, pairs.carrying)];
  const once = { id: `${pairs.id}/pair`, parts: [from.id, to.id], names: [fromRole, toRole] };
  const bare = { description: pairs.description, comments: [] };
  const entity: Entity = {
    kind: 'entity',
    id: pairs.id,
    name: pairTypeName(pairs),
    attributes: carried,
    uniques: [],
    implicitId: 'integer',
    ...bare,
  };
  return {
    entity,
    attributes: carried,
    computed: [],
    singleton: true,
    key: carried[0] ?? carriedAttribute(pairs, ''),
    keyConstraint: once,
    slotConstraint: null,
    singleConstraint: null,
    uniques: [once],
    owner: null,
    references: [from, to],
    slots: [],
  };
}

/** What the two sides of a pair are called in its record. */
export function sideRoles(pairs: PairsWith): readonly [from: string, to: string] {
  const to = singular(roleOf(pairs));
  const from = pairs.back === null ? camelCase(pairs.from) : singular(pairs.back);
  return from === to ? [`${from}From`, `${to}To`] : [from, to];
}

function side(
  pairs: PairsWith,
  id: string,
  to: string,
  role: string,
  onRemove: 'restrict' | 'cascade',
): RefersTo {
  return {
    kind: 'refers',
    id,
    from: pairs.from,
    to,
    role,
    back: null,
    onRemove,
    cardinality: 'one',
    fixed: true,
    unique: false,
    description: null,
    comments: [],
  };
}

const carriedAttribute = (pairs: PairsWith, value: string): Attribute =>
  plainAttribute(pairCarried(pairs), carriedName(value), { kind: 'value', name: value }, { required: true });
