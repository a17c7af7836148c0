import { nearest } from '../model/index.js';
import type { Fix } from './diagnostics.js';
import { fixesFor, meaningsOf, STATEMENT_WORDS, writeInstead } from './otherWords.js';
import { sentenceFixes } from './sentences.js';
import type { Token } from './tokens.js';

const BEGINNINGS = ['design', 'entity', 'value', 'each'] as const;
const VERBS: ReadonlySet<string> = new Set(['owns', 'refers', 'pairs']);

/** Whether a line begins a statement of its own, rather than an attribute that has one of these names. */
export const beginsStatement = (first: Token | null, second: Token | null): boolean =>
  first?.kind === 'word' &&
  BEGINNINGS.some((word) => word === first.text) &&
  second !== null &&
  second.text !== ':';

/** What a line may be meant to say that begins with none of the words that begin a statement. */
export function statementFixes(tokens: readonly Token[]): readonly Fix[] {
  const [first, second] = tokens;
  if (first === undefined) return [];
  const meanings = meaningsOf(STATEMENT_WORDS, first.text);
  if (meanings.length > 0) return fixesFor(meanings, first.place);
  const sentences = sentenceFixes(tokens);
  if (sentences.length > 0) return sentences;
  if (second?.kind === 'word' && VERBS.has(second.text))
    return [{ title: 'Begin with each', place: { ...first.place, length: 0 }, replacement: 'each ' }];
  const near = nearest(first.text, BEGINNINGS);
  return near === null ? [] : writeInstead(near, first.place);
}
