import {
  keyOf,
  pairStorage,
  recordAttributes,
  roleOf,
  type CompareOperator,
  type Entity,
  type ModelIndex,
} from '../model/index.js';
import type { FixedFilter } from './customOperations.js';

/** A filter by the operator that a line writes. */
export const AS_FILTER: Readonly<Record<CompareOperator, FixedFilter['operator']>> = {
  '=': 'eq',
  '!=': 'ne',
  '<': 'lt',
  '<=': 'lte',
  '>': 'gt',
  '>=': 'gte',
};

interface Named {
  readonly id: string;
  readonly name: string;
}

/** What an operation of one's own can name of an entity: its attributes, and its references by their roles. */
export function nameableMembers(index: ModelIndex, entity: Entity): readonly Named[] {
  const pairs = index.relationshipById.get(entity.id);
  // A pair has no key of its own, and is told by its two sides.
  if (pairs?.kind === 'pairs')
    return pairStorage(index, pairs).references.map((side) => ({ id: side.id, name: roleOf(side) }));
  return [
    ...recordAttributes(index, entity).map(({ id, name }) => ({ id, name })),
    ...(index.refersFrom.get(entity.name) ?? [])
      .filter(({ to }) => {
        const target = index.entities.get(to);
        return target !== undefined && keyOf(target).attribute.key?.within == null;
      })
      .map((refers) => ({ id: refers.id, name: roleOf(refers) })),
  ];
}

/** What can be made for a record: what it owns many of, and what refers to it and has a way back. */
export function relatedByRole(
  index: ModelIndex,
  entity: string,
): readonly { readonly role: string; readonly relationship: string; readonly made: string }[] {
  return [
    ...(index.ownedBy.get(entity) ?? [])
      .filter(({ cardinality }) => cardinality === 'many')
      .map((owns) => ({ role: roleOf(owns), relationship: owns.id, made: owns.to })),
    ...(index.referredBy.get(entity) ?? []).flatMap((refers) =>
      refers.back === null ? [] : [{ role: refers.back, relationship: refers.id, made: refers.from }],
    ),
  ];
}

/** What a member is called, by its identity; the identity where it is gone. */
export type NameOf = (id: string) => string;

export function namesOf(index: ModelIndex, entity: string | null): NameOf {
  const found = index.entities.get(entity ?? '');
  const names = new Map(
    (found === undefined ? [] : nameableMembers(index, found)).map(({ id, name }) => [id, name]),
  );
  return (id) => names.get(id) ?? id;
}

/** The transitions of the life cycles of an entity. */
export const transitionsOf = ({ attributes }: Entity): readonly Named[] =>
  attributes.flatMap(({ lifeCycle }) => (lifeCycle ?? []).map(({ id, name }) => ({ id, name })));
