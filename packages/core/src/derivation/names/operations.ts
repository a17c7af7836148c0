import type { Settings } from '../../arrangement/index.js';
import { camelCase, kebabCase, pascalCase, snakeCase } from '../../model/index.js';

/** What an operation does to what, in camelCase and PascalCase. */
export interface VerbAndNoun {
  readonly verb: string;
  readonly noun: string;
}

/** How verb and noun become a name, by the pattern that was chosen. */
export const OPERATION_PATTERNS: Readonly<Record<Settings['operationNames'], (name: VerbAndNoun) => string>> =
  {
    verbNoun: ({ verb, noun }) => camelCase(verb) + noun,
    VerbNoun: ({ verb, noun }) => pascalCase(verb) + noun,
    verb_noun: ({ verb, noun }) => `${snakeCase(verb)}_${snakeCase(noun)}`,
    'verb-noun': ({ verb, noun }) => `${kebabCase(verb)}-${kebabCase(noun)}`,
    nounVerb: ({ verb, noun }) => camelCase(noun) + pascalCase(verb),
    'noun.verb': ({ verb, noun }) => `${camelCase(noun)}.${camelCase(verb)}`,
  };
