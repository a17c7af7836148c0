import type { Settings } from '../../arrangement/index.js';
import { camelCase, kebabCase, pascalCase, snakeCase } from '../../model/index.js';

/** What an operation does to what, in camelCase and PascalCase. */
export interface VerbAndNoun {
  readonly verb: string;
  readonly noun: string;
}

/** The words that are there, with something between them. */
const joined = (between: string, ...texts: readonly string[]): string =>
  texts.filter((text) => text !== '').join(between);

/** How verb and noun become a name, by the pattern that was chosen. */
export const OPERATION_PATTERNS: Readonly<Record<Settings['operationNames'], (name: VerbAndNoun) => string>> =
  {
    verbNoun: ({ verb, noun }) => camelCase(verb) + noun,
    VerbNoun: ({ verb, noun }) => pascalCase(verb) + noun,
    verb_noun: ({ verb, noun }) => joined('_', snakeCase(verb), snakeCase(noun)),
    'verb-noun': ({ verb, noun }) => joined('-', kebabCase(verb), kebabCase(noun)),
    nounVerb: ({ verb, noun }) => (noun === '' ? camelCase(verb) : camelCase(noun) + pascalCase(verb)),
    'noun.verb': ({ verb, noun }) => joined('.', camelCase(noun), camelCase(verb)),
  };
