import { singular, plural } from '../../model/index.js';
import { becauseSet, valueOf, type Deriving } from '../context.js';
import type { Placed } from '../place/index.js';

/** Reports collections whose chosen word is singular among plurals, or plural among singulars. */
export function findMixed(deriving: Deriving, resources: readonly Placed[]): void {
  const { words } = deriving.arrangement;
  if (Object.keys(words).length === 0) return;
  const wanted = valueOf(deriving, 'collectionNames');
  for (const { id, kind, word, path, segments } of resources) {
    if (kind !== 'collection' || word === null || !Object.hasOwn(words, word)) continue;
    const text = segments.at(-1)?.kind === 'literal' ? (words[word] ?? '') : '';
    const isOther =
      wanted === 'plural' ? plural(text) !== text && singular(text) === text : singular(text) !== text;
    if (!isOther) continue;
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
