import { pluralize } from 'inflection';
import { kebabCase, plural, withLastWord } from './names.js';

/**
 * The plural that versions before the table of nouns gave a name, where it reads otherwise than today's: designs
 * that were kept since then go on using it.
 */
export function firstPlural(name: string): string | null {
  const first = withLastWord(name, pluralize);
  return kebabCase(first) === kebabCase(plural(name)) ? null : first;
}
