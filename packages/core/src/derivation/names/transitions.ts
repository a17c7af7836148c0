import { entityNamed, type Deriving } from '../context.js';
import type { Placed } from '../place/index.js';

/** The name of the transition that an action carries out. */
export function transitionName(deriving: Deriving, { entity, transition }: Placed): string {
  for (const { lifeCycle } of entity === null ? [] : entityNamed(deriving, entity).attributes) {
    const found = lifeCycle?.find(({ id }) => id === transition);
    if (found !== undefined) return found.name;
  }
  throw new Error(`The model has no transition ${transition ?? ''}.`);
}
