import type { ProblemKind } from '../http/problem.js';

/** One operation of the application's own interface, as data. */
export interface Described {
  readonly summary: string;
  readonly body?: string;
  readonly status: number;
  /** Whether it also answers 201 with Location, where there was nothing before. */
  readonly creates?: boolean;
  /** The name of a schema; a list of it inside `items` where `list` is set. */
  readonly answers?: string;
  readonly list?: boolean;
  readonly stream?: boolean;
  /** A media type of text that is answered; instead of JSON where nothing else is said. */
  readonly media?: string;
  /** A media type of text that is taken instead of JSON. */
  readonly bodyMedia?: string;
  readonly parameters?: readonly (keyof typeof PARAMETERS)[];
  readonly headers?: readonly (keyof typeof HEADERS)[];
  readonly problems: readonly ProblemKind[];
}

const text = { type: 'string' } as const;

export const PARAMETERS = {
  limit: {
    name: 'limit',
    in: 'query',
    description: 'How many items a page holds.',
    schema: { type: 'integer', minimum: 1, maximum: 200, default: 50 },
  },
  cursor: {
    name: 'cursor',
    in: 'query',
    description: 'As the next link of an earlier page gives it.',
    schema: text,
  },
  design: { name: 'design', in: 'query', description: 'Only mocks of this design.', schema: text },
  arrangement: {
    name: 'arrangement',
    in: 'query',
    description: 'The one the release was made from, where it is left out.',
    schema: text,
  },
  secrets: {
    name: 'secrets',
    in: 'query',
    description: 'Write-only attributes are written only with include.',
    schema: { enum: ['include'] },
  },
  as: {
    name: 'as',
    in: 'query',
    description: 'Says which form is wanted where a header cannot.',
    schema: { enum: ['json', 'csv'] },
  },
  way: {
    name: 'way',
    in: 'query',
    description: 'With replace, what is not given goes; records with a known key change in either way.',
    schema: { enum: ['merge', 'replace'], default: 'merge' },
  },
  check: {
    name: 'check',
    in: 'query',
    description: 'With only, nothing is written.',
    schema: { enum: ['only'] },
  },
  ifMatch: {
    name: 'If-Match',
    in: 'header',
    description: 'The ETag that was read; another one answers 412.',
    schema: text,
  },
  lastEventId: {
    name: 'Last-Event-ID',
    in: 'header',
    description: 'Number of the last exchange seen.',
    schema: text,
  },
} as const;

export const HEADERS = {
  ETag: { description: 'The revision (RFC 9110 §8.8.3).', schema: text },
  Location: { description: 'Where the new one is.', schema: text },
  Link: { description: 'The next page, when there is one (RFC 8288).', schema: text },
} as const;
