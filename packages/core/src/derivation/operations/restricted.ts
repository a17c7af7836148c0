import { onRemoveOf } from '../../model/index.js';
import type { DerivationContext } from '../context.js';

/** The entities whose removal some other record can forbid, directly or by what goes with them. Linear. */
export function restrictedEntities(context: DerivationContext): ReadonlySet<string> {
  const restricted = new Set<string>();
  const waiting: string[] = [];
  const mark = (name: string): void => {
    if (restricted.has(name)) return;
    restricted.add(name);
    waiting.push(name);
  };
  for (const { name, single } of context.index.entities.values()) if (single === true) mark(name);
  for (const relationship of context.index.relationships) {
    // What fills a required slot cannot go alone, so what would take it along cannot go either.
    if (relationship.kind === 'owns' && relationship.cardinality === 'one')
      for (const refers of context.index.refersFrom.get(relationship.to) ?? [])
        if (onRemoveOf(refers) === 'cascade') mark(refers.to);
    if (onRemoveOf(relationship) !== 'restrict') continue;
    mark(relationship.kind === 'owns' ? relationship.from : relationship.to);
  }
  for (let name = waiting.pop(); name !== undefined; name = waiting.pop()) {
    const owner = context.index.ownerOf.get(name);
    if (owner !== undefined) mark(owner.from);
    for (const refers of context.index.refersFrom.get(name) ?? []) {
      if (onRemoveOf(refers) === 'cascade') mark(refers.to);
    }
  }
  return restricted;
}
