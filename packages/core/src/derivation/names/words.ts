import { pluralSubject, type Settings } from '../../arrangement/index.js';
import type { Reason, Segment } from '../../contract/index.js';
import {
  camelCase,
  kebabCase,
  pascalCase,
  plural,
  singular,
  snakeCase,
  type Entity,
} from '../../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';

const CASES: Readonly<Record<Settings['pathCase'], (name: string) => string>> = {
  kebab: kebabCase,
  snake: snakeCase,
  camel: camelCase,
  written: (name) => name,
};

/** The word that was chosen for a statement, or for the way back of one; `undefined` where none was. */
const chosenWord = ({ arrangement }: DerivationContext, subject: string): string | undefined =>
  Object.hasOwn(arrangement.words, subject) ? arrangement.words[subject] : undefined;

/** The plural of an entity: the one that was chosen, else by the rules of English. */
export function pluralOf(context: DerivationContext, entity: Entity): string {
  const chosen = chosenWord(context, pluralSubject(entity.id));
  return chosen === undefined ? plural(entity.name) : pascalCase(chosen);
}

/** A name as a path has it, unless another word was chosen for it. */
export const literal = (context: DerivationContext, name: string, subject: string): Segment => ({
  kind: 'literal',
  text: chosenWord(context, subject) ?? CASES[valueOf(context, 'pathCase')](name),
});

/** The word of an entity's collection. */
export const collectionWord = (context: DerivationContext, entity: Entity): Segment =>
  literal(
    context,
    valueOf(context, 'collectionNames') === 'plural' ? pluralOf(context, entity) : entity.name,
    entity.id,
  );

/** The word of a list that is named by a role: in the singular where collections are. */
export const listWord = (context: DerivationContext, role: string, subject: string): Segment =>
  literal(context, valueOf(context, 'collectionNames') === 'plural' ? role : singular(role), subject);

/** Why the word of such a list reads as it does. */
export function namedList(
  context: DerivationContext,
  subject: string,
  ...statements: readonly { readonly id: string }[]
): readonly Reason[] {
  const named = namedPath(context, subject, ...statements);
  if (valueOf(context, 'collectionNames') === 'plural' || chosenWord(context, subject) !== undefined)
    return [named];
  return [named, becauseSet(context, 'name.singular', ['collectionNames'], ...statements)];
}

/** Why a path word reads as it does. */
export function namedPath(
  context: DerivationContext,
  subject: string,
  ...statements: readonly { readonly id: string }[]
): Reason {
  const word = chosenWord(context, subject);
  if (word === undefined) return becauseSet(context, 'name.path', ['pathCase'], ...statements);
  const reason = becauseSet(context, 'name.word', [], ...statements);
  return { ...reason, because: [...reason.because, { kind: 'word', subject, word, level: 'arrangement' }] };
}
