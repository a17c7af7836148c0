import type { Transition } from '../../model/index.js';
import { entityNamed, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';

/** The transition that an action carries out. */
export function transitionAt(context: DerivationContext, { entity, transition }: PlacedResource): Transition {
  for (const { lifeCycle } of entityNamed(context, entity ?? '').attributes) {
    const found = lifeCycle?.find(({ id }) => id === transition);
    if (found !== undefined) return found;
  }
  throw new Error(`The model has no transition ${transition ?? ''}.`);
}
