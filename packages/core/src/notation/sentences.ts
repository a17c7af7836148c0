import { capital, plural, uncapital } from '../model/index.js';
import type { Fix } from './diagnostics.js';
import { across } from './otherWords.js';
import type { Token } from './tokens.js';

/** What is said about two entities: A and B are their names, the rest is what was written behind them. */
interface Said {
  readonly a: string;
  readonly b: string;
  /** `as sailings, on remove restrict`, as it was written. */
  readonly tail: string;
  readonly role: string | null;
  /** As it was written, quotes and all; empty where there is none. */
  readonly description: string;
}

interface Reading {
  readonly title: string;
  readonly means: string;
  readonly write: (said: Said) => string;
}

const straight = (verb: string, means: string): Reading => ({
  title: verb,
  means,
  write: ({ a, b, tail }) => `each ${a} ${verb} ${b}${tail}`,
});

const OWNS_MANY = straight('owns many', 'each is removed with its owner');
const OWNS_ONE = straight('owns one', 'made and removed with its owner');
const OWNS_OPTIONAL = straight('owns optional', 'there or not, removed with its owner');
const REFERS_ONE = straight('refers to one', 'it stands alone, and is always named');
const REFERS_OPTIONAL = straight('refers to optional', 'it stands alone, and may be unset');
const PAIRS = straight('pairs with many', 'many on both sides');

/** What stays behind a sentence that is said from the other side: its role is the way back now. */
const turned = ({ role, description }: Pick<Said, 'role' | 'description'>): string =>
  `${role === null ? '' : `, back as ${role}`}${description === '' ? '' : ` ${description}`}`;

/** The sentence said from the other side. */
const REFERRED_TO: Reading = {
  title: 'the other refers to it',
  means: 'each stands alone',
  write: ({ a, b, ...said }) => `each ${b} refers to one ${a} as ${uncapital(a)}${turned(said)}`,
};
const OWNED_BY: Reading = {
  title: 'the other owns it',
  means: 'it is removed with its owner',
  write: ({ a, b, ...said }) => `each ${b} owns many ${a} as ${uncapital(plural(a))}${turned(said)}`,
};

const MANY = [OWNS_MANY, REFERRED_TO, PAIRS];
const ONE = [OWNS_ONE, OWNS_OPTIONAL, REFERS_ONE];
const BELONGS = [OWNED_BY, REFERS_ONE];

/** What stands between the names of two entities, in lower case, and what may be meant; the longer phrases first. */
const PHRASES: readonly (readonly [RegExp, readonly Reading[]])[] = [
  [/^(has and belongs to many|(is )?many[ -]to[ -]many( with)?|pairs with( (a|an|one|several))?)$/, [PAIRS]],
  [/^(has|have|contains?|includes?|holds?) (many|multiple|several|some|\d)$|^one[ -]to[ -]many$/, MANY],
  [/^(has|have|contains?|includes?|holds?) (optional|maybe|zero or one)$/, [OWNS_OPTIONAL, REFERS_OPTIONAL]],
  [/^(has|have|contains?|includes?|holds?)( (a|an|one|1))?$|^one[ -]to[ -]one$/, ONE],
  [/^(belongs to|is part of|is owned by|is in)( (a|an|one|the))?$|^many[ -]to[ -]one$/, BELONGS],
  [/^(references?|points? to|links? to|uses|knows|refers)( (a|an|one))?$/, [REFERS_ONE, REFERS_OPTIONAL]],
  [/^refers to( (a|an|the))?$/, [REFERS_ONE, REFERS_OPTIONAL]],
  [/^refers to (many|several)$/, [PAIRS, REFERRED_TO]],
  [/^owns( (a|an|the|several))?$/, [OWNS_MANY, OWNS_ONE, OWNS_OPTIONAL]],
];

/** Words of a phrase that are read on, since none of them is an entity. */
const NO_NAMES: ReadonlySet<string> = new Set([
  'many',
  'one',
  'optional',
  'a',
  'an',
  'the',
  'to',
  'with',
  'several',
]);

const MOST_WORDS = 6;

/**
 * What a sentence about two entities may be meant to say, each way a fix that writes the whole line: a verb from
 * elsewhere, one without how many, or the sentence said from the other side. None where nothing is recognized.
 */
export function sentenceFixes(tokens: readonly Token[]): readonly Fix[] {
  const words = tokens[0]?.text === 'each' ? tokens.slice(1) : tokens;
  const [a] = words;
  const [first, last] = [tokens[0], tokens.at(-1)];
  if (a === undefined || first === undefined || last === undefined) return [];
  for (let count = Math.min(MOST_WORDS, words.length - 2); count > 0; count--) {
    const phrase = words.slice(1, count + 1).map(({ text }) => text.toLowerCase());
    const readings = PHRASES.find(([pattern]) => pattern.test(phrase.join(' ')))?.[1];
    const b = words[count + 1];
    if (readings === undefined || b?.kind !== 'word' || NO_NAMES.has(b.text.toLowerCase())) continue;
    const tail = words.slice(count + 2);
    const end = tail.at(-1);
    const said = {
      a: capital(a.text),
      b: capital(b.text),
      tail: written(tail),
      role: roleIn(tail),
      description: end?.kind === 'string' ? end.text : '',
    };
    return readings.map(({ title, means, write }) => ({
      title: `Use ${title}`,
      means,
      place: across(first.place, last.place),
      replacement: write(said),
    }));
  }
  return [];
}

const roleIn = ([as, role]: readonly Token[]): string | null =>
  as?.text === 'as' && role?.kind === 'word' ? role.text : null;

const written = (tokens: readonly Token[]): string =>
  tokens.map(({ text, kind }) => (kind === 'mark' && text === ',' ? text : ` ${text}`)).join('');
