import type { Assumption } from '../../contract/index.js';
import { phrase, plural } from '../../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';
import { pluralOf, pluralSubject } from '../names/words.js';

/** Names whose plural is more than the usual ending. */
export function assumePlurals(context: DerivationContext): readonly Assumption[] {
  if (valueOf(context, 'collectionNames') !== 'plural') return [];
  return [...context.index.entities.values()].flatMap((entity): Assumption[] => {
    const derived = plural(entity.name);
    if (usual(entity.name) === derived) return [];
    const subject = pluralSubject(entity.id);
    const taken = pluralOf(context, entity);
    const regular = usual(entity.name);
    return [
      {
        id: `plural:${entity.id}`,
        question: `Plural of ${phrase(entity.name)}?`,
        ground: `By the rules of English: ${phrase(derived)}.`,
        options: [derived, regular].map((word) => ({
          label: phrase(word),
          assumed: word === taken,
          answer: word === derived ? { kind: 'accept' } : { kind: 'word', subject, word },
        })),
        settled: taken !== derived,
        reasons: [becauseSet(context, 'name.plural', ['collectionNames'], entity)],
      },
    ];
  });
}

/** The usual endings: -s, -es after a hiss, -ies for -y after a consonant. */
function usual(name: string): string {
  if (/[^aeiou]y$/.test(name)) return `${name.slice(0, -1)}ies`;
  return /(?:s|x|z|ch|sh)$/.test(name) ? `${name}es` : `${name}s`;
}
