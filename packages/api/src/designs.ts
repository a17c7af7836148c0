import type { IntakeReport } from './intake.js';
import type { Choices } from '@isomeros/core/arrangement';
import type { ContractFigures, FingerprintColumn } from '@isomeros/core/contract';
import type { Identities, PossibleRename } from '@isomeros/core/model';
import type { Diagnostic } from '@isomeros/core/notation';
import type { ArrangementName, ArrangementView, NewArrangement, NewChoices } from './arrangements.js';
import type {
  ContractBody,
  DesignFileBody,
  OpenApiBody,
  Publication,
  PublicationQuery,
  PublishedBody,
  PublishedMedia,
} from './publications.js';
import type { Items, PageQuery } from './route.js';

/** What a design amounts to, in numbers. */
export interface DesignFigures extends ContractFigures {
  /** @TJS-type integer */
  readonly entities: number;
  /** @TJS-type integer */
  readonly relationships: number;
}

/** A design as a list shows it. */
export interface DesignSummary {
  /** @format uuid */
  readonly id: string;
  readonly name: string;
  /** @TJS-type integer */
  readonly revision: number;
  /** @format date-time */
  readonly createdAt: string;
  /** @format date-time */
  readonly changedAt: string;
  readonly arrangements: readonly { readonly name: string }[];
  /** Whether the saved text has no errors; figures are those of the last valid one. */
  readonly valid: boolean;
  /** null while they are worked out anew after an upgrade. */
  readonly figures: DesignFigures | null;
  readonly fingerprint: readonly FingerprintColumn[];
  /**
   * How many records its mocks begin with, where nothing else is said; 0 where it has none and they are seeded.
   * @TJS-type integer
   */
  readonly initialRecords: number;
}

/** A design with its model. */
export interface Design extends DesignSummary {
  readonly figures: DesignFigures;
  readonly text: string;
  /** The last saved text without errors: what contracts are derived from. */
  readonly validText: string;
  readonly identities: Identities;
  readonly diagnostics: readonly Diagnostic[];
  readonly choices: Choices;
  /** What went and what came in its place: each may have been a rename. */
  readonly possibleRenames: readonly PossibleRename[];
}

/** The records that mocks of a design begin with, at the model they fitted. */
export interface InitialRecords {
  /** @TJS-type integer */
  readonly records: number;
  /**
   * null where there are none.
   * @format date-time
   */
  readonly keptAt: string | null;
  readonly types: readonly {
    readonly type: string;
    /** @TJS-type integer */
    readonly records: number;
  }[];
}

/** A design as it was made, with what became of the source it was read from. */
export interface CreatedDesign extends Design {
  /** `null` where it was not read from elsewhere. */
  readonly report: IntakeReport | null;
}

/** What a design can be made from. */
export const SOURCE_FORMATS = ['notation', 'sql', 'json-schema', 'records', 'design', 'sample'] as const;
export type SourceFormat = (typeof SOURCE_FORMATS)[number];

export interface NewDesign {
  /**
   * Takes the place of the name in the text.
   * @minLength 1
   * @maxLength 120
   */
  readonly name?: string;
  /** Whether the records of the source become those that mocks of the design begin with. They do where it is left out. */
  readonly records?: boolean;
  readonly source: {
    readonly format: SourceFormat;
    /** The source itself; of a sample its id. */
    readonly text: string;
    /**
     * Of what is read from elsewhere: options by the questions that its report asks, both by their index from 0. What was
     * assumed stands where nothing is answered.
     */
    readonly answers?: { readonly [question: string]: number };
    /**
     * Of what is read from elsewhere: what one record is, where it does not say; the name of the design where it is left
     * out.
     * @maxLength 120
     */
    readonly record?: string;
  };
}

/** A copy of a design. */
export interface NewCopy extends DesignName {
  /** Whether it has its initial records, too. It has where it is left out. */
  readonly records?: boolean;
}

export interface DesignFileQuery {
  /** Whether the file carries the initial records. It does where it is left out. */
  readonly records?: boolean;
}

export interface DesignName {
  /**
   * @minLength 1
   * @maxLength 120
   */
  readonly name: string;
}

export interface ModelText {
  /** The model in its notation, at most 1 MiB. */
  readonly text: string;
}

/** Whether one element became another one. */
export interface Rename {
  /** The address of what went. */
  readonly from: string;
  /** The address of what came. */
  readonly to: string;
  /** Whether one became the other. */
  readonly renamed: boolean;
}

/** A sample that a design can begin with. */
export interface Sample {
  /** The name of its file, without ending. */
  readonly id: string;
  readonly name: string;
  readonly description: string | null;
  readonly text: string;
  /** What was decided about it besides its text. */
  readonly choices: Choices;
  readonly figures: DesignFigures;
  readonly fingerprint: readonly FingerprintColumn[];
}

/** What came about with a revision. */
export type RevisionKind = 'begun' | 'text' | 'choices' | 'rename' | 'restored';

export interface RevisionSummary {
  /** @TJS-type integer */
  readonly number: number;
  /** @format date-time */
  readonly at: string;
  readonly what: RevisionKind;
  /** Whether its text has no errors. */
  readonly valid: boolean;
  readonly lines: {
    /** @TJS-type integer */
    readonly added: number;
    /** @TJS-type integer */
    readonly removed: number;
  };
}

/** One saved state of a design. */
export interface Revision extends RevisionSummary {
  readonly text: string;
  readonly choices: Choices;
}

/** Which designs, and which page of them. */
export interface DesignsQuery extends PageQuery {
  /**
   * A part of their names, in whatever case.
   * @maxLength 120
   */
  readonly name?: string;
}

/** What can be done with designs. */
export interface DesignRoutes {
  /** List the samples */
  'GET /api/samples': { readonly answer: Items<Sample> };
  /** List the designs, latest change first */
  'GET /api/designs': {
    readonly query: DesignsQuery;
    readonly answer: Items<DesignSummary>;
    readonly headers: 'Link';
    readonly problems: 'bad-parameter';
  };
  /** Create a design */
  'POST /api/designs': {
    readonly body: NewDesign;
    readonly status: 201;
    readonly answer: CreatedDesign;
    readonly headers: 'Location' | 'ETag';
    readonly problems: 'invalid' | 'too-large' | 'media-type' | 'unsound';
  };
  /** Read a design */
  'GET /api/designs/{id}': {
    readonly answer: Design;
    readonly headers: 'ETag';
    readonly problems: 'not-found';
  };
  /** Remove a design; it can be restored */
  'DELETE /api/designs/{id}': {
    readonly status: 204;
    readonly ifMatch: true;
    readonly problems: 'not-found' | 'precondition-failed';
  };
  /** Restore a removed design, with its mocks */
  'POST /api/designs/{id}/restore': {
    readonly answer: Design;
    readonly headers: 'ETag';
    readonly problems: 'not-found';
  };
  /** Create a design like another one */
  'POST /api/designs/{id}/copy': {
    readonly body: NewCopy;
    readonly status: 201;
    readonly answer: Design;
    readonly headers: 'Location' | 'ETag';
    readonly problems: 'invalid' | 'not-found' | 'media-type';
  };
  /** Give a design another name */
  'PUT /api/designs/{id}/name': {
    readonly body: DesignName;
    readonly answer: Design;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'invalid' | 'not-found' | 'precondition-failed' | 'media-type';
  };
  /** Read a whole design as one file */
  'GET /api/designs/{id}/file': {
    readonly query: DesignFileQuery;
    readonly answer: DesignFileBody;
    readonly headers: 'ETag';
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Read which records mocks of a design begin with */
  'GET /api/designs/{id}/initial-records': {
    readonly answer: InitialRecords;
    readonly problems: 'not-found';
  };
  /** Let mocks of a design begin with seed records again; those that are running keep theirs */
  'DELETE /api/designs/{id}/initial-records': {
    readonly status: 204;
    readonly problems: 'not-found';
  };
  /** Read the text of a model as a file */
  'GET /api/designs/{id}/model.iso.txt': {
    readonly answerMedia: 'text/vnd.isomeros.model';
    readonly headers: 'ETag';
    readonly problems: 'not-found';
  };
  /** Read the text of a model */
  'GET /api/designs/{id}/model': {
    readonly answer: ModelText;
    readonly headers: 'ETag';
    readonly problems: 'not-found';
  };
  /** Save the text of a model, errors and all */
  'PUT /api/designs/{id}/model': {
    readonly body: ModelText;
    readonly answer: Design;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'invalid' | 'not-found' | 'precondition-failed' | 'too-large' | 'media-type';
  };
  /** Save what was decided besides the text */
  'PUT /api/designs/{id}/choices': {
    readonly body: NewChoices;
    readonly answer: Design;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'precondition-failed' | 'media-type';
  };
  /** Say whether what came lately is what went */
  'POST /api/designs/{id}/renames': {
    readonly body: Rename;
    readonly answer: Design;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'precondition-failed' | 'media-type';
  };
  /** List the saved states of a design, latest first */
  'GET /api/designs/{id}/revisions': {
    readonly query: PageQuery;
    readonly answer: Items<RevisionSummary>;
    readonly headers: 'Link';
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Read one saved state */
  'GET /api/designs/{id}/revisions/{number}': {
    readonly answer: Revision;
    readonly problems: 'not-found';
  };
  /** Make an earlier state the latest one */
  'POST /api/designs/{id}/revisions/{number}/restore': {
    readonly answer: Design;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'not-found' | 'conflict' | 'precondition-failed';
  };
  /** Read what was decided about an arrangement */
  'GET /api/designs/{id}/arrangements/{name}': {
    readonly answer: ArrangementView;
    readonly problems: 'not-found';
  };
  /** Save what was decided about an arrangement, or make one */
  'PUT /api/designs/{id}/arrangements/{name}': {
    readonly body: NewArrangement;
    readonly creates: true;
    readonly answer: ArrangementView;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'precondition-failed' | 'media-type';
  };
  /** Remove an arrangement that is not the last one and that no mock serves */
  'DELETE /api/designs/{id}/arrangements/{name}': {
    readonly answer: Design;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'not-found' | 'conflict' | 'precondition-failed';
  };
  /** Give an arrangement another name */
  'PUT /api/designs/{id}/arrangements/{name}/name': {
    readonly body: ArrangementName;
    readonly answer: Design;
    readonly ifMatch: true;
    readonly headers: 'ETag';
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'precondition-failed' | 'media-type';
  };
  /** Read the contract that an arrangement implies */
  'GET /api/designs/{id}/arrangements/{name}/contract': {
    readonly answer: ContractBody;
    readonly headers: 'ETag';
    readonly problems: 'not-found' | 'unsound';
  };
  /** List the open formats in which the contract is published, with what each cannot say */
  'GET /api/designs/{id}/arrangements/{name}/publications': {
    readonly answer: Items<Publication>;
    readonly problems: 'not-found' | 'unsound';
  };
  /** Read the contract as a document in an open format */
  'GET /api/designs/{id}/arrangements/{name}/publications/{format}': {
    readonly query: PublicationQuery;
    readonly answer: PublishedBody;
    readonly answerMedia: PublishedMedia;
    readonly headers: 'ETag';
    readonly problems: 'not-found' | 'unsound' | 'bad-parameter';
  };
  /** Read the contract as an OpenAPI 3.1 document: openapi.json or openapi.yaml, as it was called before */
  'GET /api/designs/{id}/arrangements/{name}/{document}': {
    readonly answer: OpenApiBody;
    readonly answerMedia: 'application/yaml';
    readonly headers: 'ETag';
    readonly problems: 'not-found' | 'unsound';
  };
}
