import { entityNamed, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';

/** The name of the transition that an action carries out. */
export function transitionName(context: DerivationContext, { entity, transition }: PlacedResource): string {
  for (const { lifeCycle } of entity === null ? [] : entityNamed(context, entity).attributes) {
    const found = lifeCycle?.find(({ id }) => id === transition);
    if (found !== undefined) return found.name;
  }
  throw new Error(`The model has no transition ${transition ?? ''}.`);
}
