import { choiceProblem } from '../reading.js';
import { readEach, withEntry, type ArrangementPart } from './part.js';

/** A path word: unreserved characters (RFC 3986 §2.3), which never need encoding. */
export const PATH_WORD = /^(?!\.{1,2}$)[A-Za-z0-9._~-]{1,60}$/;

const EXPECTED = 'Expected 1 to 60 letters, digits, dots, hyphens, underscores or tildes.';

/** Under what the plural of an entity is filed where it was chosen. */
export const pluralSubject = (entity: string): string => `${entity}/plural`;

/** A path word for something, or the derived one again. */
export interface WordEdit {
  readonly subject: string;
  readonly word: string | null;
}

/** Path words in the place of derived ones. */
export const WORDS_PART: ArrangementPart<{ readonly [name: string]: string }, WordEdit> = {
  empty: {},
  read: (given, pointer) =>
    readEach<string>(
      given,
      pointer,
      'Expected an object from ids of statements to path words.',
      (value, at) =>
        typeof value === 'string' && PATH_WORD.test(value)
          ? { value, problems: [] }
          : { value: '', problems: [choiceProblem(at, 'pattern', EXPECTED)] },
    ),
  schema: {
    type: 'object',
    description: 'Path words by the identity of what they name.',
    additionalProperties: { type: 'string', pattern: PATH_WORD.source },
  },
  decided: (words) => Object.entries(words).map(([subject, word]) => [`Path word of ${subject}`, word]),
  edit: (words, { subject, word }) => withEntry(words, subject, word),
};
