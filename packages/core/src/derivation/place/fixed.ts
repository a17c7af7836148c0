import { becauseCustom, fixedAnswersOf } from '../customOperations/index.js';
import type { DerivationContext } from '../context.js';
import { literal, namedPath } from '../names/words.js';
import type { PathTree } from './tree.js';

/** What is always the same, at the root. */
export function placeFixed(context: DerivationContext, tree: PathTree): void {
  for (const { operation } of fixedAnswersOf(context))
    tree.add({
      id: `${operation.id}/custom`,
      kind: 'fixed',
      segments: [literal(context, operation.name, operation.id)],
      parent: 'entry',
      entity: null,
      via: null,
      custom: operation.id,
      word: operation.id,
      reasons: [becauseCustom('place.fixed', operation), namedPath(context, operation.id)],
    });
}
