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
/** A name that other fields list, joined by commas. */
const NAME = String.raw`(?![\s])[^,\u0000-\u001f\u007f\u2028\u2029\u202a-\u202e\u2066-\u2069]{1,80}`;
const NAMES: Field = {
  pattern: new RegExp(`^${NAME}(?:, ${NAME}){0,999}$`),
  expected: 'names, separated by commas',
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

/** A URL whose parts may be variables in braces (OAS §4.8.5), absolute or beginning at the root. */
const SERVER_URL: Field = {
  pattern: /^(?:https?:\/\/[A-Za-z0-9{][A-Za-z0-9.:{}_-]{0,200})?(?:\/[A-Za-z0-9._~{}-]{1,60}){0,8}\/?$/,
  expected: 'a URL with variables in braces, such as https://{region}.api.example/v1',
  isRight: (text) => text !== '' && text.replace(/\{[A-Za-z][A-Za-z0-9_]{0,40}\}/g, '').search(/[{}]/) < 0,
};
const VARIABLE = String.raw`[A-Za-z][A-Za-z0-9_]{0,40}: [A-Za-z0-9._-]{1,60}(?:, [A-Za-z0-9._-]{1,60}){0,50}`;

const NOTE = { description: LONG_TEXT };

/** What can be said, field by field, of each kind of subject. */
export const DOCUMENTED = {
  /** The API as a whole. */
  api: {
    title: line(120),
    summary: line(200),
    description: LONG_TEXT,
    /** Of the document, beside that of the path. */
    version: { pattern: /^[A-Za-z0-9][A-Za-z0-9.+_-]{0,40}$/, expected: 'a version, such as 1.4.0' },
    contactName: line(120),
    contactUrl: WEB_PAGE,
    contactEmail: { pattern: /^[^\s@<>"]{1,64}@[A-Za-z0-9.-]{1,100}$/, expected: 'an e-mail address' },
    licenseName: line(120),
    externalUrl: WEB_PAGE,
    externalText: line(200),
    /** The tags in their order, by their ids; those that are not among them follow. */
    tagOrder: NAMES,
  },
  /** A place where the API is served, by a name of one's own. */
  server: {
    url: SERVER_URL,
    description: line(200),
    /** What each variable may be, what it usually is first. */
    variables: {
      pattern: new RegExp(`^${VARIABLE}(?:; ${VARIABLE}){0,20}$`),
      expected: 'what each variable may be, as in region: eu, us; stage: live, test',
    },
  },
  /** A tag, by its id: that of an entity, or one of one's own. */
  tag: {
    title: { ...NAMES, pattern: new RegExp(`^${NAME}$`), expected: 'a name without a comma' },
    description: LONG_TEXT,
    externalUrl: WEB_PAGE,
    externalText: line(200),
  },
  /** An operation, by `operationKey`. */
  operation: {
    summary: line(200),
    description: LONG_TEXT,
    externalUrl: WEB_PAGE,
    externalText: line(200),
    /** The tags it stands under, by their ids. */
    tags: NAMES,
    /** Since when it is deprecated, and when it stops answering. */
    deprecated: DATE,
    sunset: DATE,
    /** What is to be used in its place, by its `operationKey`. */
    successor: line(200),
    /** Derived and served, but in no published document. */
    unpublished: { pattern: /^yes$/, expected: 'yes, or nothing' },
  },
  /** A member of bodies, by what it shows; see `memberSubject` and what follows it for these. */
  member: NOTE,
  parameter: NOTE,
  header: NOTE,
  /** An answer of an operation. */
  response: NOTE,
  /** A bound, a uniqueness, or the condition of a transition: what the error says where it does not hold. */
  constraint: { message: line(200) },
  /** A type of problem, by its code. */
  problem: { title: line(120), description: LONG_TEXT },
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
