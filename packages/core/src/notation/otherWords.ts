import { nearest } from '../model/index.js';
import type { Fix, TextRange } from './diagnostics.js';

/** What a word from elsewhere may mean here; where it may mean several things, what each of them implies. */
export interface Meaning {
  /** What is written here; empty where nothing is. */
  readonly write: string;
  readonly means?: string;
}

type Words = Readonly<Record<string, readonly Meaning[]>>;

const writes = (write: string, ...words: readonly string[]): Words =>
  Object.fromEntries(words.map((word) => [word, [{ write }]]));

/** Types by the names that they have elsewhere, in lower case. */
export const TYPE_WORDS: Words = {
  ...writes('text', 'string', 'str', 'varchar', 'char', 'character', 'longtext', 'clob'),
  ...writes('integer', 'int', 'long', 'short', 'bigint', 'smallint', 'int32', 'int64'),
  ...writes('decimal', 'float', 'double', 'real', 'numeric', 'money'),
  ...writes('boolean', 'bool', 'bit', 'flag'),
  ...writes('instant', 'datetime', 'timestamp', 'timestamptz'),
  ...writes('choice', 'enum', 'oneof'),
  ...writes('uri', 'url', 'link'),
  ...writes('uuid', 'guid'),
  ...writes('json', 'object', 'map', 'any', 'jsonb'),
  number: [
    { write: 'integer', means: 'whole numbers' },
    { write: 'decimal', means: 'numbers with a fraction' },
  ],
};

const TAKEN_AWAY: readonly Meaning[] = [{ write: '', means: 'an attribute without required may be unset' }];

const NOT_INDEXED: readonly Meaning[] = [{ write: '', means: 'nothing is indexed by hand here' }];
const HIDDEN: readonly Meaning[] = [
  { write: 'write-only', means: 'accepted, never returned' },
  { write: '', means: 'to leave it out of all bodies, hide it in Arrange' },
];

/** Flags by the names that they have elsewhere, in lower case; a flag may be two words. */
export const FLAG_WORDS: Words = {
  ...writes('required', 'not null', 'nonnull', 'notnull', 'mandatory', 'not optional'),
  ...writes('key', 'primary key', 'primary', 'pk', 'id', 'identifier'),
  ...writes('generated', 'auto', 'auto increment', 'autoincrement', 'auto_increment', 'serial', 'identity'),
  ...writes('read-only', 'readonly', 'read only'),
  ...writes('write-only', 'writeonly', 'write only', 'secret'),
  ...writes('fixed', 'immutable', 'const', 'constant', 'final'),
  optional: TAKEN_AWAY,
  nullable: TAKEN_AWAY,
  null: TAKEN_AWAY,
  index: NOT_INDEXED,
  indexed: NOT_INDEXED,
  private: HIDDEN,
  hidden: HIDDEN,
};

/** Words that begin a statement elsewhere, in lower case. */
export const STATEMENT_WORDS: Words = {
  ...writes(
    'entity',
    'class',
    'table',
    'model',
    'type',
    'resource',
    'object',
    'struct',
    'interface',
    'schema',
  ),
  ...writes('value', 'embedded', 'embeddable'),
  ...writes('design', 'api', 'project', 'service'),
  ...writes('each', 'every', 'any'),
};

/** What a word may mean; none where it is not known from elsewhere. */
export function meaningsOf(words: Words, word: string): readonly Meaning[] {
  const known = word.toLowerCase();
  return Object.hasOwn(words, known) ? (words[known] ?? []) : [];
}

/** A fix for each meaning: it stands in the place of the word, or, where nothing does, what is around it goes too. */
export const fixesFor = (
  meanings: readonly Meaning[],
  place: TextRange,
  around: TextRange = place,
): readonly Fix[] =>
  meanings.map(({ write, means }) => ({
    title: write === '' ? 'Take it away' : `Use ${write}`,
    ...(means === undefined ? {} : { means }),
    place: write === '' ? around : place,
    replacement: write,
  }));

/** What a word may mean: what it is called elsewhere, or else the nearest of the names there are; and a hint that says so. */
export function guess(
  words: Words,
  names: readonly string[],
  word: string,
  mayGuess: boolean,
): { readonly meanings: readonly Meaning[]; readonly hint: string } {
  const meanings = meaningsOf(words, word);
  const written = meanings.map(({ write }) => write).filter((write) => write !== '');
  if (meanings.length > 0)
    return { meanings, hint: written.length === 0 ? '' : ` It is called ${written.join(' or ')} here.` };
  const near = mayGuess ? nearest(word, names) : null;
  return near === null
    ? { meanings, hint: ` There are ${names.join(', ')}.` }
    : { meanings: [{ write: near }], hint: ` The nearest is ${near}.` };
}

/** One name in the place of another. */
export const writeInstead = (write: string, place: TextRange): readonly Fix[] => fixesFor([{ write }], place);

/** From the beginning of one place to the end of another on the same line. */
export const across = (from: TextRange, to: TextRange): TextRange => ({
  ...from,
  length: to.column + to.length - from.column,
});

/** Right behind a place. */
export const behind = ({ line, column, length }: TextRange): TextRange => ({
  line,
  column: column + length,
  length: 0,
});
