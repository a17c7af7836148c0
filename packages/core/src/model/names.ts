import { pluralNoun, singularNoun } from './nouns.js';

/** Names come again thousands of times while a contract is derived; each is taken apart once. */
const MOST_REMEMBERED = 20_000;

function remembered<T>(make: (name: string) => T): (name: string) => T {
  const known = new Map<string, T>();
  return (name) => {
    let made = known.get(name);
    if (made === undefined) {
      made = make(name);
      if (known.size >= MOST_REMEMBERED) known.clear();
      known.set(name, made);
    }
    return made;
  };
}

/** Splits a PascalCase or camelCase name into lower-case words: `CrewMember` → `crew`, `member`. */
export const words: (name: string) => readonly string[] = remembered((name) =>
  name
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .replace(/([A-Z]+)([A-Z][a-z])/g, '$1 $2')
    .split(/[\s_-]+/)
    .filter((word) => word !== '')
    .map((word) => word.toLowerCase()),
);

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
export const uncapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

export const pascalCase = remembered((name) => words(name).map(capital).join(''));
export const kebabCase = remembered((name) => words(name).join('-'));
export const snakeCase = remembered((name) => words(name).join('_'));
export const phrase = remembered((name) => words(name).join(' '));

export const camelCase = remembered((name) => uncapital(pascalCase(name)));

/** A noun with its indefinite article: `a sailing`, `an order`. */
export const withArticle = (noun: string): string => `${/^[aeio]|^un(?!i)/i.test(noun) ? 'an' : 'a'} ${noun}`;

/** The plural of the last word: `CrewMember` → `CrewMembers`. Uncountable nouns stay as they are. */
export const plural = remembered((name) => withLastWord(name, pluralNoun));

export const singular = remembered((name) => withLastWord(name, singularNoun));

/** A name with its last word, which is handed on in lower case, changed. */
export function withLastWord(name: string, change: (noun: string) => string): string {
  const start = lastWordStart(name);
  const word = name.slice(start);
  const changed = change(word.toLowerCase());
  return name.slice(0, start) + (/^[A-Z]/.test(word) ? capital(changed) : changed);
}

function lastWordStart(name: string): number {
  const match = /[A-Z]?[a-z0-9]*$/.exec(name);
  return match === null || match[0] === '' ? 0 : match.index;
}

/** Comparing takes the product of both lengths; longer names are no slips of the hand. */
const LONGEST_GUESSED = 80;

/** The name nearest to `name` by edit distance, when it is near enough to be a slip of the hand. */
export function nearest(name: string, candidates: Iterable<string>): string | null {
  if (name.length > LONGEST_GUESSED) return null;
  const limit = Math.max(1, Math.floor(name.length / 3));
  let best: string | null = null;
  let bestDistance = limit + 1;
  for (const candidate of candidates) {
    if (Math.abs(candidate.length - name.length) >= bestDistance) continue;
    const distance = editDistance(name.toLowerCase(), candidate.toLowerCase());
    if (distance < bestDistance) {
      best = candidate;
      bestDistance = distance;
    }
  }
  return best;
}

/** Levenshtein's distance: letters to put in, take out or change. */
export function editDistance(a: string, b: string): number {
  let previous = Array.from({ length: b.length + 1 }, (_, index) => index);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const substitution = (previous[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1);
      row.push(Math.min((previous[j] ?? 0) + 1, (row[j - 1] ?? 0) + 1, substitution));
    }
    previous = row;
  }
  return previous[b.length] ?? 0;
}
