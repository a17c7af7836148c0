import type { Assumption } from '../../contract/index.js';
import {
  isSingleton,
  ownsItself,
  phrase,
  readByComputed,
  withArticle,
  type Owns,
} from '../../model/index.js';
import { because, type DerivationContext } from '../context.js';

/** What is owned, though something else leads to it as well, may be meant to stand on its own. */
export function assumeExistence(context: DerivationContext): readonly Assumption[] {
  const found: Assumption[] = [];
  for (const owns of context.index.ownerOf.values()) {
    if (ownsItself(owns) || isSingleton(context.index, owns.to)) continue;
    if (readByComputed(context.model).has(owns.id)) continue;
    const leading = leadingTo(context, owns);
    if (leading.length === 0) continue;
    const named = leading.map(phrase);
    const others = named.length === 1 ? named[0] : `${named.slice(0, -1).join(', ')} and ${named.at(-1)}`;
    found.push({
      id: `existence:${owns.id}`,
      question: `Can ${withArticle(phrase(owns.to))} exist without its ${phrase(owns.from)}?`,
      ground: `It is owned, though ${others} ${leading.length === 1 ? 'leads' : 'lead'} to it as well.`,
      options: [
        { label: 'No', assumed: true, answer: { kind: 'accept' } },
        {
          label: 'Yes',
          assumed: false,
          answer: { kind: 'edit', edit: { kind: 'turn-around', relationship: owns.id } },
        },
      ],
      settled: false,
      reasons: [because('place.nested', owns)],
    });
  }
  return found;
}

/** Entities other than the owner from which a way leads to an owned entity. */
function leadingTo({ index }: DerivationContext, owns: Owns): readonly string[] {
  const leading = new Set([
    ...(index.referredBy.get(owns.to) ?? []).map(({ from }) => from),
    ...(index.refersFrom.get(owns.to) ?? []).flatMap(({ back, to }) => (back === null ? [] : [to])),
    ...(index.pairsTo.get(owns.to) ?? []).map(({ from }) => from),
    ...(index.pairsFrom.get(owns.to) ?? []).map(({ to }) => to),
  ]);
  leading.delete(owns.to);
  leading.delete(owns.from);
  return [...leading];
}
