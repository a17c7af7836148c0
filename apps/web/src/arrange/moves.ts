import {
  backSubject,
  entityPlacements,
  pairingPlacements,
  resolvePlacement,
  placementWords,
  type Placements,
} from '@isomeros/core/arrangement';
import type { Outline, OutlineResource } from '@isomeros/core/contract';
import { indexModel, ownsItself, type Model, type ModelIndex } from '@isomeros/core/model';
import type { Placing } from './placementRows.js';

/** Where a branch can be let go: at the root, below a resource, or nowhere, which hides it. */
export type DropTarget = string;
export const ROOT: DropTarget = 'entry';
export const NOWHERE: DropTarget = 'nowhere';

/** Another place a branch can be given. */
export interface Move extends Placing {
  readonly label: string;
  readonly means: string;
  readonly target: DropTarget;
}

/** Every other place of the branch a resource stands for, with where to let it go. */
export function movesOf(
  resource: OutlineResource,
  outline: Outline,
  model: Model,
  placements: Placements,
): readonly Move[] {
  const index = indexModel(model);
  return placingsOf(resource, index)
    .filter(({ of, subject, place }) => resolvePlacement(placements, of, subject).place !== place)
    .flatMap((placing): Move[] => {
      const target = targetOf(placing, resource, outline, index);
      return target === null ? [] : [{ ...placing, ...placementWords(placing.of, placing.place), target }];
    });
}

/** The places that what a resource shows can be given, its own among them. */
function placingsOf(resource: OutlineResource, index: ModelIndex): readonly Placing[] {
  const { kind, entity, via, transition } = resource;
  const relationship = index.relationshipById.get(via?.relationship ?? '');
  switch (kind) {
    case 'entry':
      return [];
    case 'collection':
    case 'item':
    case 'singleton':
      return entity === null ? [] : entityPlacings(entity, via !== null, index);
    case 'reverse':
      return relationship === undefined
        ? []
        : placings('back', backSubject(relationship.id), ['listed', 'off']);
    case 'reference':
      return relationship === undefined
        ? []
        : placings('reference', relationship.id, ['member', 'read', 'inline']);
    case 'pairing':
    case 'pair': {
      if (relationship?.kind !== 'pairs') return [];
      return placings('pairing', relationship.id, pairingPlacements(relationship));
    }
    case 'query':
    case 'collection-action':
    case 'aggregate':
    case 'fixed':
      return [];
    case 'action':
      return transition === null ? [] : placings('transition', transition, ['action', 'change', 'hidden']);
  }
}

function entityPlacings(entity: string, isBelow: boolean, index: ModelIndex): readonly Placing[] {
  const owns = index.ownerOf.get(entity);
  if (owns !== undefined && ownsItself(owns) && isBelow)
    return placings('tree', owns.id, ['nested', 'hidden']);
  if (owns === undefined || ownsItself(owns)) {
    const id = index.entities.get(entity)?.id;
    return id === undefined ? [] : placings('entity', id, entityPlacements(index, id));
  }
  if (owns.cardinality !== 'many') return placings('slot', owns.id, ['singleton', 'hidden', 'inline']);
  return placings('owned', owns.id, ['nested', 'flat', 'shallow', 'both', 'hidden', 'inline']);
}

const placings = (
  of: Placing['of'],
  subject: string,
  places: readonly Placing['place'][],
): readonly Placing[] => places.map((place) => ({ of, subject, place }));

/** Where a branch is let go to get a place. */
function targetOf(
  { place, subject }: Placing,
  resource: OutlineResource,
  { resources }: Outline,
  index: ModelIndex,
): DropTarget | null {
  const homeOf = (entity: string | undefined): string | null =>
    resources.find(
      (one) => one.entity === entity && one.canonical && (one.kind === 'item' || one.kind === 'singleton'),
    )?.id ?? null;
  const relationship = index.relationshipById.get(subject.replace(/\/back$/, ''));
  switch (place) {
    case 'hidden':
    case 'inline':
    case 'off':
    case 'member':
    case 'change':
      return NOWHERE;
    case 'root':
    case 'flat':
    case 'shallow':
    case 'both':
      return ROOT;
    case 'nested':
    case 'singleton':
    case 'near':
      return homeOf(relationship?.from);
    case 'far':
    case 'both-sides':
      return homeOf(relationship?.to);
    case 'listed':
    case 'read':
    case 'action':
      return resource.parent;
  }
}
