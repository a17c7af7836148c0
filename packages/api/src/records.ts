import type { ImportedRecords, ImportMode } from '@isomeros/core/transfer';
import type { Items } from './route.js';

/** An entity or a pairing whose records a mock has. */
export interface RecordType {
  readonly name: string;
  /** @TJS-type integer */
  readonly records: number;
  /** Whether something of it is write-only. */
  readonly hasSecrets: boolean;
}

/** One record, by the names of the model. */
export type RecordBody = { readonly [name: string]: unknown };

/** Records by the names of the model, an array for each entity and pairing. */
export type RecordsByType = { readonly [name: string]: readonly RecordBody[] };

/** What became of records that were imported, or would. */
export interface ImportResult {
  /** Whether it was done, and not only checked. */
  readonly done: boolean;
  readonly types: readonly ImportedRecords[];
}

export interface ImportQuery {
  /**
   * With replace, what is not given goes; records with a known key change in either mode.
   * @default merge
   */
  readonly mode?: ImportMode;
  /** With only, nothing is written. */
  readonly check?: 'only';
}

export interface ExportQuery {
  /** Write-only attributes are written only with include. */
  readonly secrets?: 'include';
}

export interface TypeExportQuery extends ExportQuery {
  /** Says which form is wanted where a header cannot. */
  readonly as?: 'json' | 'csv';
}

/** What can be done with the records of a mock. */
export interface RecordRoutes {
  /** List the types of records, entities and pairings, with how many there are of each */
  'GET /api/mocks/{id}/record-types': {
    readonly answer: Items<RecordType>;
    readonly problems: 'not-found';
  };
  /** Export all records */
  'GET /api/mocks/{id}/records': {
    readonly query: ExportQuery;
    readonly answer: RecordsByType;
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Import records, all or none */
  'POST /api/mocks/{id}/records': {
    readonly query: ImportQuery;
    readonly body: RecordsByType;
    readonly answer: ImportResult;
    readonly problems:
      'invalid' | 'bad-request' | 'not-found' | 'bad-parameter' | 'media-type' | 'too-large' | 'unavailable';
  };
  /** Export the records of one entity or pairing */
  'GET /api/mocks/{id}/records/{type}': {
    readonly query: TypeExportQuery;
    readonly answer: readonly RecordBody[];
    readonly answerMedia: 'text/csv';
    readonly problems: 'not-found' | 'bad-parameter' | 'not-acceptable';
  };
  /** Import records of one entity or pairing, all or none */
  'POST /api/mocks/{id}/records/{type}': {
    readonly query: ImportQuery;
    readonly body: readonly RecordBody[];
    readonly bodyMedia: 'text/csv';
    readonly answer: ImportResult;
    readonly problems:
      'invalid' | 'bad-request' | 'not-found' | 'bad-parameter' | 'media-type' | 'too-large' | 'unavailable';
  };
}
