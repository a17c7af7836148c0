import { WEB_ADDRESS } from './webAddress.js';

/** What can be said of something in one field. */
interface Field {
  readonly pattern: RegExp;
  readonly expected: string;
  /** What a pattern cannot tell. */
  readonly isRight?: (text: string) => boolean;
}

/** Characters that a reader does not see, and that turn the order of others around, are no part of a text. */
const NO_CONTROLS = String.raw`[^\u0000-\u0008\u000b-\u001f\u007f\u2028\u2029\u202a-\u202e\u2066-\u2069]`;
const line = (most: number): Field => ({
  pattern: new RegExp(`^(?!\\s)(?:(?![\\n\\t])${NO_CONTROLS}){1,${most}}$`),
  expected: `1 to ${most} characters on one line, without control characters`,
});
const LONGEST_TEXT = 20_000;
const LONG_TEXT: Field = {
  pattern: new RegExp(`^${NO_CONTROLS}{1,${LONGEST_TEXT}}$`),
  expected: `1 to ${LONGEST_TEXT} characters of CommonMark, without control characters`,
};
const WEB_PAGE: Field = { pattern: WEB_ADDRESS, expected: 'an absolute URL of the web' };
const DATE: Field = {
  pattern: /^\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01])$/,
  expected: 'a date, as in 2027-01-31',
  // No month has days that it has not.
  isRight: (text) => {
    const time = Date.parse(text);
    return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
  },
};

/** What can be said, field by field, of each kind of subject. */
export const DOCUMENTED = {
  /** The API as a whole. */
  api: {
    title: line(120),
    summary: line(200),
    description: LONG_TEXT,
    contactName: line(120),
    contactUrl: WEB_PAGE,
    contactEmail: { pattern: /^[^\s@<>"]{1,64}@[A-Za-z0-9.-]{1,100}$/, expected: 'an e-mail address' },
    licenseName: line(120),
    externalUrl: WEB_PAGE,
    externalText: line(200),
  },
  /** An operation, by `operationKey`. */
  operation: {
    summary: line(200),
    description: LONG_TEXT,
    externalUrl: WEB_PAGE,
    externalText: line(200),
    /** Since when it is deprecated, and when it stops answering. */
    deprecated: DATE,
    sunset: DATE,
    /** Derived and served, but in no published document. */
    unpublished: { pattern: /^yes$/, expected: 'yes, or nothing' },
  },
} as const satisfies Readonly<Record<string, Readonly<Record<string, Field>>>>;

export type DocumentedKind = keyof typeof DOCUMENTED;

/** What is said of a subject, by field; nothing where the model's own texts hold. */
export type SaidOf<Kind extends DocumentedKind> = Readonly<
  Partial<Record<keyof (typeof DOCUMENTED)[Kind] & string, string>>
>;

/** What is said of everything, by kind, then by the identity of the subject; of the API under `api`. */
export type DocumentationChoices = {
  readonly [Kind in DocumentedKind]?: Readonly<Record<string, SaidOf<Kind>>>;
};

/** Under what the API itself is filed. */
export const WHOLE_API = 'api';

export const DOCUMENTED_KINDS = Object.keys(DOCUMENTED) as readonly DocumentedKind[];

/** The fields of a kind of subject, by their names. */
export const fieldsOf = (kind: DocumentedKind): readonly (readonly [name: string, field: Field])[] =>
  Object.entries<Field>(DOCUMENTED[kind]);

/** What is wrong with a text in a field of a kind of subject; `null` where it fits. */
export function wrongInField(kind: DocumentedKind, name: string, text: unknown): string | null {
  const fields = new Map(fieldsOf(kind));
  const field = fields.get(name);
  if (field === undefined) return `There is no ${name}; there are ${[...fields.keys()].join(', ')}.`;
  const { pattern, expected, isRight } = field;
  const isFit = typeof text === 'string' && pattern.test(text) && (isRight?.(text) ?? true);
  return isFit ? null : `Expected ${expected}.`;
}
