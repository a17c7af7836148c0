import type { EditProblem, RecordColumn, RecordDetail, RecordEdit, RecordPage } from '@isomeros/core/records';
import type { ImportedRecords, ImportMode } from '@isomeros/core/transfer';
import type { ServedName } from './mocks.js';
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

export interface TableQuery {
  /**
   * Words of the language of custom operations, such as where status = planned by departsAt desc; or a text that is
   * searched for.
   * @maxLength 2000
   */
  readonly find?: string;
  /**
   * The name of a column, with a minus in front where it descends; before what `find` says of the order.
   * @maxLength 200
   */
  readonly sort?: string;
  /**
   * How many records come before.
   * @minimum 0
   * @maximum 99999999
   * @default 0
   * @TJS-type integer
   */
  readonly offset?: number;
  /**
   * How many records are answered.
   * @minimum 1
   * @maximum 200
   * @default 50
   * @TJS-type integer
   */
  readonly limit?: number;
}

/** Some of the records of one type, as a table. */
export interface RecordTable extends RecordPage {
  readonly columns: readonly RecordColumn[];
}

/** One record, with what hangs together with it. */
export interface InspectedRecord extends RecordDetail {
  readonly columns: readonly RecordColumn[];
  /** The exchanges that changed it, newest first, as far back as the journal goes. */
  readonly versions: readonly RecordVersion[];
  /** What is sent to remove it, by whatever is served, or why nothing is. */
  readonly removedBy: readonly RemovalRequest[];
}

/** What removes a record through one contract. */
export interface RemovalRequest extends ServedName {
  /** Method and target; a sentence where the contract offers nothing that does. */
  readonly request: string;
}

export interface RecordVersion {
  /** @TJS-type integer */
  readonly version: number;
  /** @TJS-type integer */
  readonly exchange: number;
  /** @format date-time */
  readonly at: string;
  readonly operation: string | null;
  /** The names of what it changed; all of them where it made the record. */
  readonly changed: readonly string[];
}

/** What is to be written to records: all of it as one write, or none. */
export interface NewEdits extends ServedName {
  /**
   * @minItems 1
   * @maxItems 500
   */
  readonly edits: readonly RecordEdit[];
  /**
   * By requests through the contract, which appear in the journal, or around it: around what it does not offer, life
   * cycles, what is fixed or read-only, and never around the model.
   * @default contract
   */
  readonly way?: 'contract' | 'around';
}

/** What became of edits. */
export interface WrittenEdits {
  readonly written: boolean;
  /**
   * The numbers of the exchanges by which they were written, or those that were refused.
   * @items.type integer
   */
  readonly exchanges: readonly number[];
  /** Why nothing was written; empty where it was. */
  readonly problems: readonly EditProblem[];
}

/** What can be done with the records of a mock. */
export interface RecordRoutes {
  /** List the types of records, entities and pairings, with how many there are of each */
  'GET /api/mocks/{id}/record-types': {
    readonly answer: Items<RecordType>;
    readonly problems: 'not-found';
  };
  /** Look through the records of one type */
  'GET /api/mocks/{id}/record-types/{type}/table': {
    readonly query: TableQuery;
    readonly answer: RecordTable;
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Look at one record: its versions, what refers to it, and what would go with it */
  'GET /api/mocks/{id}/record-types/{type}/table/{number}': {
    readonly answer: InspectedRecord;
    readonly problems: 'not-found';
  };
  /** Edit records, all edits as one write or none */
  'POST /api/mocks/{id}/record-edits': {
    readonly body: NewEdits;
    readonly answer: WrittenEdits;
    readonly problems: 'invalid' | 'bad-request' | 'not-found' | 'media-type' | 'too-large' | 'unavailable';
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
