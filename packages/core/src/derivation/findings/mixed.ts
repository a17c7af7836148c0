import { plural, singular, words } from '../../model/index.js';
import { becauseSet, entityNamed, valueOf, type Deriving } from '../context.js';
import { pluralOf } from '../names/words.js';
import type { Placed } from '../place/index.js';

/**
 * Reports lists that are named in the singular among plurals, or in the plural among singulars: by a word that was
 * chosen, or by a role that is called as one record is.
 */
export function findMixed(deriving: Deriving, resources: readonly Placed[]): void {
  const wanted = valueOf(deriving, 'collectionNames');
  for (const resource of resources) {
    const { id, kind, word, path } = resource;
    if ((kind !== 'collection' && kind !== 'reverse' && kind !== 'pairing') || word === null) continue;
    const text = misnamed(deriving, resource, word, wanted);
    if (text === null) continue;
    const other = wanted === 'plural' ? plural(text) : singular(text);
    deriving.findings.push({
      id: 'path.mixed',
      severity: 'doubtful',
      message: `${path} is ${wanted === 'plural' ? 'singular' : 'plural'}, while other collections are ${wanted}.`,
      about: id,
      reasons: [becauseSet(deriving, 'finding.mixed', ['collectionNames'])],
      mends: [{ title: `Call it ${other}`, act: { kind: 'word', subject: word, word: other } }],
    });
  }
}

/** The word of a list, where it is in the other number than wanted. */
function misnamed(
  deriving: Deriving,
  { segments, entity }: Placed,
  word: string,
  wanted: 'plural' | 'singular',
): string | null {
  const last = segments.at(-1);
  if (last?.kind !== 'literal') return null;
  const { text } = last;
  const isSingular = plural(text) !== text && singular(text) === text;
  if (Object.hasOwn(deriving.arrangement.words, word))
    return (wanted === 'plural' ? isSingular : singular(text) !== text) ? text : null;
  // A crew or a fleet is many; a role is in the singular where it says what one record is called.
  const one = entityNamed(deriving, entity ?? '');
  const [named, many] = [lastWord(text), lastWord(pluralOf(deriving, one))];
  return wanted === 'plural' && isSingular && named === lastWord(one.name) && named !== many ? text : null;
}

const lastWord = (name: string): string | undefined => words(name).at(-1);
