import type { ContractChange } from '@isomeros/core/comparison';
import type {
  ContractBody,
  OpenApiBody,
  Publication,
  PublicationQuery,
  PublishedBody,
  PublishedMedia,
} from './publications.js';
import type { Items } from './route.js';

/** What comes after a release: another one, or an arrangement. */
export type Successor = { readonly release: string } | { readonly arrangement: string };

/** What is said about the end of a release. */
export interface ReleaseEnd {
  /**
   * From when it is not to be used any more.
   * @format date-time
   */
  readonly deprecatedAt: string;
  /**
   * When it stops answering; null where nobody knows.
   * @format date-time
   */
  readonly sunsetAt: string | null;
  readonly successor: Successor | null;
}

/** What is to be said about the end of a release. */
export type NewReleaseEnd = Pick<ReleaseEnd, 'deprecatedAt'> & Partial<ReleaseEnd>;

/** A contract frozen under a label. */
export interface Release {
  readonly label: string;
  readonly arrangement: string;
  readonly version: string;
  /** @TJS-type integer */
  readonly revision: number;
  /** @TJS-type integer */
  readonly operations: number;
  /** @format date-time */
  readonly madeAt: string;
  /** What is said about its end; null while it may be used. */
  readonly end: ReleaseEnd | null;
}

export interface NewRelease {
  /** @pattern ^[A-Za-z0-9][A-Za-z0-9._-]{0,59}$ */
  readonly label: string;
  readonly arrangement: string;
}

export interface ChangesQuery {
  /** The one the release was made from, where it is left out. */
  readonly arrangement?: string;
}

/** What can be done with releases. */
export interface ReleaseRoutes {
  /** List the releases of a design in the order they were made */
  'GET /api/designs/{id}/releases': { readonly answer: Items<Release>; readonly problems: 'not-found' };
  /** Freeze the contract of an arrangement under a label */
  'POST /api/designs/{id}/releases': {
    readonly body: NewRelease;
    readonly status: 201;
    readonly answer: Release;
    readonly headers: 'Location';
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'media-type';
  };
  /** Read a release */
  'GET /api/designs/{id}/releases/{label}': { readonly answer: Release; readonly problems: 'not-found' };
  /** Take a release back, as if it had not been made */
  'DELETE /api/designs/{id}/releases/{label}': {
    readonly status: 204;
    readonly problems: 'not-found' | 'conflict';
  };
  /** Say from when a release is not to be used any more, when it stops, and what comes after it */
  'PUT /api/designs/{id}/releases/{label}/end': {
    readonly body: NewReleaseEnd;
    readonly answer: Release;
    readonly problems: 'invalid' | 'not-found' | 'media-type';
  };
  /** Let a release be used again */
  'DELETE /api/designs/{id}/releases/{label}/end': {
    readonly answer: Release;
    readonly problems: 'not-found';
  };
  /** Read the contract as it was frozen */
  'GET /api/designs/{id}/releases/{label}/contract': {
    readonly answer: ContractBody;
    readonly problems: 'not-found';
  };
  /** List the open formats in which a release is published, with what each cannot say */
  'GET /api/designs/{id}/releases/{label}/publications': {
    readonly answer: Items<Publication>;
    readonly problems: 'not-found';
  };
  /** Read a release as a document in an open format */
  'GET /api/designs/{id}/releases/{label}/publications/{format}': {
    readonly query: PublicationQuery;
    readonly answer: PublishedBody;
    readonly answerMedia: PublishedMedia;
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Read a release as an OpenAPI 3.1 document: openapi.json or openapi.yaml, as it was called before */
  'GET /api/designs/{id}/releases/{label}/{document}': {
    readonly answer: OpenApiBody;
    readonly answerMedia: 'application/yaml';
    readonly problems: 'not-found';
  };
  /** List what changed from a release to what an arrangement implies now, the breaking first */
  'GET /api/designs/{id}/releases/{label}/changes': {
    readonly query: ChangesQuery;
    readonly answer: Items<ContractChange>;
    readonly problems: 'not-found' | 'bad-parameter';
  };
}
