import type { Finding } from '../../contract/index.js';
import type { Entity } from '../../model/index.js';
import { becausePlaced, placementOf, type DerivationContext } from '../context.js';

/** Whether the arrangement has one record of an entity at the root, without an id. */
export const isPlacedSingle = (context: DerivationContext, entity: Entity): boolean =>
  entity.single === true && placementOf(context, 'entity', entity.id) === 'singleton';

/** Entities that were to be the only ones of their kind and cannot be. */
export const findNotSingle = (context: DerivationContext): readonly Finding[] =>
  [...context.index.entities.values()]
    .filter(
      (entity) =>
        placementOf(context, 'entity', entity.id) === 'singleton' &&
        entity.single !== true &&
        !context.index.ownerOf.has(entity.name),
    )
    .map((entity) => ({
      id: 'single.impossible',
      severity: 'error',
      message: `${entity.name} cannot be a singleton: others lead to it, or it goes with what it refers to. It has a collection.`,
      about: entity.id,
      reasons: [becausePlaced(context, 'place.single', 'entity', entity.id, entity)],
      quickFixes: [
        {
          title: 'Place it as a collection',
          answer: { kind: 'placement', of: 'entity', subject: entity.id, place: 'root' },
        },
      ],
    }));
