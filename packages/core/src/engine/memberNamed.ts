import type { EntityStorage } from '../model/index.js';
import { indexOf, type RequestContext } from './service.js';

/**
 * What clients call the member that holds an attribute, or the key that a relationship leads to, by the identity of
 * either; `otherwise` where no shape of the entity has it.
 */
export function memberNamed(
  service: RequestContext,
  { entity }: EntityStorage,
  id: string,
  otherwise: string,
): string {
  const { shapes } = indexOf(service);
  // What is never returned is only in what is sent.
  for (const name of [entity.name, `${entity.name}.create`, `${entity.name}.change`]) {
    const found = shapes
      .get(name)
      ?.members.find(({ source }) =>
        source.kind === 'attribute' || source.kind === 'computed'
          ? source.attribute === id
          : 'relationship' in source && source.relationship === id,
      );
    if (found !== undefined) return found.name;
  }
  return otherwise;
}
