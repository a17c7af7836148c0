import { plural, singular, words } from '../../model/index.js';
import { becauseSet, entityNamed, valueOf, type DerivationContext } from '../context.js';
import { pluralOf } from '../names/words.js';
import type { PlacedResource } from '../place/index.js';

/**
 * Reports lists that are named in the singular among plurals, or in the plural among singulars: by a word that was
 * chosen, or by a role that is called as one record is.
 */
export function findMixed(context: DerivationContext, resources: readonly PlacedResource[]): void {
  const wanted = valueOf(context, 'collectionNames');
  for (const resource of resources) {
    const { id, kind, word, path } = resource;
    if ((kind !== 'collection' && kind !== 'reverse' && kind !== 'pairing') || word === null) continue;
    const text = misnamed(context, resource, word, wanted);
    if (text === null) continue;
    const other = wanted === 'plural' ? plural(text) : singular(text);
    context.findings.push({
      id: 'path.mixed',
      severity: 'doubtful',
      message: `${path} is ${wanted === 'plural' ? 'singular' : 'plural'}, while other collections are ${wanted}.`,
      about: id,
      reasons: [becauseSet(context, 'finding.mixed', ['collectionNames'])],
      quickFixes: [{ title: `Call it ${other}`, answer: { kind: 'word', subject: word, word: other } }],
    });
  }
}

/** The word of a list, where it is in the other number than wanted. */
function misnamed(
  context: DerivationContext,
  { segments, entity }: PlacedResource,
  word: string,
  wanted: 'plural' | 'singular',
): string | null {
  const last = segments.at(-1);
  if (last?.kind !== 'literal') return null;
  const { text } = last;
  const isSingular = plural(text) !== text && singular(text) === text;
  if (Object.hasOwn(context.arrangement.words, word))
    return (wanted === 'plural' ? isSingular : singular(text) !== text) ? text : null;
  // A crew or a fleet is many; a role is in the singular where it says what one record is called.
  const one = entityNamed(context, entity ?? '');
  const [named, many] = [lastWord(text), lastWord(pluralOf(context, one))];
  return wanted === 'plural' && isSingular && named === lastWord(one.name) && named !== many ? text : null;
}

const lastWord = (name: string): string | undefined => words(name).at(-1);
