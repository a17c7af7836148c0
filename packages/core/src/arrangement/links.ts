/** What a link says of its target (RFC 8288 §3.4.1; the last two are those of HAL). */
export interface LinkAttributes {
  readonly title?: string;
  /** The media type of what is there. */
  readonly type?: string;
  readonly hreflang?: string;
  /** Where it is told that and why the link is going. */
  readonly deprecation?: string;
  /** What tells it from others of its relation. */
  readonly name?: string;
}

/** What was decided about a derived link. */
export interface LinkChoice extends LinkAttributes {
  readonly leftOut?: true;
  /** Where it is carried, at least one of them; as the arrangement says where nothing is chosen. */
  readonly in?: readonly LinkPlace[];
  /** The place it has among the links of its resource, from 1. */
  readonly position?: number;
  /** One that is registered, or a word of one's own. */
  readonly relation?: string;
}

/** Where links are carried: by an answer, by the records in a list, or besides in a header of an answer. */
export const LINK_PLACES = ['items', 'lists', 'header'] as const;
export type LinkPlace = (typeof LINK_PLACES)[number];
export const LAST_POSITION = 999;

/** By the id of a resource, then by that of a link. */
export type LinkChoices = Readonly<Record<string, Readonly<Record<string, LinkChoice>>>>;

/** A relation: registered ones are in lower case (RFC 8288 §3.3), those of one's own are words. */
export const EXPECTED_RELATION = 'a relation: a small letter, then letters, digits, dots or hyphens';
export const LINK_RELATION = /^[a-z][A-Za-z0-9.-]{0,59}$/;

/** What each attribute of a link can be. */
export const LINK_ATTRIBUTES: Readonly<
  Record<keyof LinkAttributes, { readonly pattern: RegExp; readonly expected: string }>
> = {
  title: { pattern: /^[^\u0000-\u001f\u007f]{1,200}$/, expected: '1 to 200 characters on one line' },
  type: {
    pattern: /^[A-Za-z0-9!#$&^_.+-]{1,60}\/[A-Za-z0-9!#$&^_.+-]{1,60}$/,
    expected: 'a media type, such as application/json',
  },
  hreflang: {
    pattern: /^[A-Za-z]{1,8}(?:-[A-Za-z0-9]{1,8}){0,4}$/,
    expected: 'a language, such as en or de-CH',
  },
  deprecation: {
    pattern: /^https?:\/\/[A-Za-z0-9.-]{1,100}(?::\d{1,5})?(?:\/[\x21\x23-\x3b\x3d\x3f-\x7e]{0,200})?$/,
    expected: 'an absolute URL',
  },
  name: {
    pattern: /^[A-Za-z0-9._-]{1,60}$/,
    expected: '1 to 60 letters, digits, dots, hyphens or underscores',
  },
};

export const LINK_ATTRIBUTE_NAMES = Object.keys(LINK_ATTRIBUTES) as readonly (keyof LinkAttributes)[];
