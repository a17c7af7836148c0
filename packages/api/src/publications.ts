/** A format in which a contract is published. */
export interface Publication {
  /** The last segment of its address, and the name of the file. */
  readonly format: string;
  readonly title: string;
  readonly mediaType: string;
  /** @format uri-reference */
  readonly href: string;
  /** What of the contract it cannot say, a sentence each: that is changed or left out. */
  readonly cannotSay: readonly string[];
}

/** What is named in a published document. */
export interface PublicationQuery {
  /** With `mock` also where a mock serves it, among the servers of OpenAPI. */
  readonly server?: 'mock';
}

/** A document that is JSON: of OpenAPI, of JSON Schema, or a contract. */
export interface PublishedBody {
  readonly [member: string]: unknown;
}

/** The media types of documents that are not JSON, or JSON of a kind. */
export type PublishedMedia =
  | 'application/yaml'
  | 'application/schema+json'
  | 'application/sql'
  | 'application/x-sh'
  | 'text/html'
  | 'text/markdown'
  | 'text/plain';

/** A design file, as its own schema has it: urn:isomeros:design-file. */
export interface DesignFileBody {
  readonly format: 'isomeros-design';
  /** @TJS-type integer */
  readonly version: number;
  readonly [member: string]: unknown;
}

/** Resources, operations, shapes, findings and assumptions, each with its reasons. */
export interface ContractBody {
  readonly [member: string]: unknown;
}

/** An OpenAPI 3.1 document. */
export interface OpenApiBody {
  readonly openapi: string;
  readonly [member: string]: unknown;
}
