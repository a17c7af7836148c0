import { indexModel, ownsItself, type ModelIndex } from './lookup.js';
import type { Entity, Model } from './types.js';

export interface CreationOrder {
  /** Each entity after its owner and after everything it must refer to. */
  readonly order: readonly Entity[];
  /** Entities of which no record can ever be created: what they need first needs them in turn. */
  readonly impossible: readonly Entity[];
}

/** The order in which records can come into being. Linear in entities and relationships. */
export function creationOrder(model: Model): CreationOrder {
  const index = indexModel(model);
  const needs = new Map<string, number>();
  const neededBy = new Map<string, string[]>();
  const need = (entity: string, needed: string): void => {
    needs.set(entity, (needs.get(entity) ?? 0) + 1);
    const dependents = neededBy.get(needed);
    if (dependents === undefined) neededBy.set(needed, [entity]);
    else dependents.push(entity);
  };
  for (const relationship of index.relationships) {
    const { from, to } = relationship;
    if (relationship.kind === 'owns') {
      if (!ownsItself(relationship)) need(to, from);
    } else if (relationship.cardinality === 'one') {
      need(from, to);
      const maker = madeWith(index, from);
      if (maker !== from) need(maker, to);
    }
  }
  const order: Entity[] = [];
  const ready = [...index.entities.values()].filter((entity) => !needs.has(entity.name));
  for (let next = 0; next < ready.length; next++) {
    const entity = ready[next];
    if (entity === undefined) break;
    order.push(entity);
    for (const dependent of neededBy.get(entity.name) ?? []) {
      const left = (needs.get(dependent) ?? 0) - 1;
      needs.set(dependent, left);
      const freed = left === 0 ? index.entities.get(dependent) : undefined;
      if (freed !== undefined) ready.push(freed);
    }
  }
  const possible = new Set(order);
  return { order, impossible: [...index.entities.values()].filter((entity) => !possible.has(entity)) };
}

/** The entity in whose create body a record is made: itself, or the one at the top of its required slots. */
function madeWith(index: ModelIndex, name: string): string {
  let maker = name;
  for (let owner = index.ownerOf.get(maker); owner?.cardinality === 'one'; owner = index.ownerOf.get(maker)) {
    maker = owner.from;
  }
  return maker;
}
