import { pluralSubject } from '../../arrangement/index.js';
import type { Assumption } from '../../contract/index.js';
import { phrase, plural, regularPlural, withLastWord } from '../../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';
import { pluralOf } from '../names/words.js';

/** Names whose plural is more than the usual ending. */
export function assumePlurals(context: DerivationContext): readonly Assumption[] {
  if (valueOf(context, 'collectionNames') !== 'plural') return [];
  return [...context.index.entities.values()].flatMap((entity): Assumption[] => {
    const derived = plural(entity.name);
    const regular = withLastWord(entity.name, regularPlural);
    if (regular === derived) return [];
    const subject = pluralSubject(entity.id);
    const taken = pluralOf(context, entity);
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
