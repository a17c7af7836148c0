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
  index: [{ write: '', means: 'nothing is indexed by hand here' }],
  indexed: [{ write: '', means: 'nothing is indexed by hand here' }],
  private: [
    { write: 'write-only', means: 'accepted, never returned' },
    { write: '', means: 'to leave it out of all bodies, hide it in Arrange' },
  ],
  hidden: [
    { write: 'write-only', means: 'accepted, never returned' },
    { write: '', means: 'to leave it out of all bodies, hide it in Arrange' },
  ],
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
