import type { ProblemKind } from './problems.js';

/**
 * What one operation of the application's interface takes and gives. Its documentation is its summary. The published
 * description (OpenAPI 3.1) is made of these types.
 */
export interface RouteShape {
  readonly query?: object;
  /** Of JSON. */
  readonly body?: unknown;
  /** A media type of text that is taken as well. */
  readonly bodyMedia?: string;
  /** What is answered, as JSON. */
  readonly answer?: unknown;
  /** A media type of text that is answered, instead of JSON where there is no `answer`. */
  readonly answerMedia?: string;
  /** 200 where nothing is said. With `creates` also 201, with Location, where there was nothing before. */
  readonly status?: 201 | 202 | 204;
  readonly creates?: true;
  /** Takes `If-Match` (RFC 9110 §13.1.1): another entity tag answers 412. */
  readonly ifMatch?: true;
  /** Takes `Last-Event-ID`: the number of the last exchange seen. */
  readonly lastEventId?: true;
  readonly headers?: 'ETag' | 'Link' | 'Location';
  readonly problems?: ProblemKind;
}

/** A list of items. */
export interface Items<Item> {
  readonly items: readonly Item[];
}

/** Which page of a list. */
export interface PageQuery {
  /**
   * How many items a page holds.
   * @minimum 1
   * @maximum 200
   * @default 50
   * @TJS-type integer
   */
  readonly limit?: number;
  /** As the next link of an earlier page gives it. */
  readonly cursor?: string;
}
