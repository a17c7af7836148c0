import type { SeedPreview } from '@isomeros/core/records';
import type { FaultRule } from '@isomeros/core/engine';
import type { Decision, MigrationStep } from '@isomeros/core/migration';
import type { SeedPlan, Shortfall } from '@isomeros/core/seeding';
import type { JournalState } from './exchanges.js';
import type { Items } from './route.js';

export interface NewMock extends Partial<SeedPlan> {
  /** @format uuid */
  readonly design: string;
  /**
   * Names of arrangements.
   * @maxItems 20
   * @uniqueItems true
   */
  readonly arrangements: readonly string[];
  /**
   * Labels. A release that the records cannot be served under gets a mock of its own.
   * @maxItems 20
   * @uniqueItems true
   */
  readonly releases?: readonly string[];
  /**
   * The next free one from 4811 where it is left out.
   * @minimum 1024
   * @maximum 65535
   * @TJS-type integer
   */
  readonly port?: number;
  /**
   * 42 where nobody says.
   * @minimum 0
   * @maximum 4294967295
   * @TJS-type integer
   */
  readonly seed?: number;
  /**
   * Whether it begins with the initial records of its design. Where it is left out, it does if the design has them and
   * nothing is said about seed records.
   */
  readonly initialRecords?: boolean;
}

/** An arrangement or a release of a mock; the first arrangement where neither is named. */
export interface ServedName {
  readonly arrangement?: string;
  /** The label of a release that it serves. */
  readonly release?: string;
}

/** A mock server. */
export interface Mock {
  /** @format uuid */
  readonly id: string;
  /** @format uuid */
  readonly design: string;
  readonly arrangements: readonly string[];
  /** By the names of arrangements. */
  readonly baseUrls: { readonly [name: string]: string };
  /** Labels of releases that are served from the same records. */
  readonly releases: readonly string[];
  /** By labels. */
  readonly releaseUrls: { readonly [name: string]: string };
  /** @TJS-type integer */
  readonly port: number;
  /** What was chosen to answer requests that name no version; the first served where nothing was. */
  readonly unversioned: ServedName | null;
  readonly running: boolean;
  /** @TJS-type integer */
  readonly seed: number;
  /** @TJS-type integer */
  readonly records: number;
  /**
   * The number of the latest one.
   * @TJS-type integer
   */
  readonly exchanges: number;
  readonly journal: JournalState;
  /**
   * Revision of the design that is served.
   * @TJS-type integer
   */
  readonly servesRevision: number;
  /**
   * How many fault rules there are.
   * @TJS-type integer
   */
  readonly faults: number;
  /** Why a newer model is not served: what its records would lose or contradict. Empty when all is served. */
  readonly obstacles: readonly string[];
  /** Entities that got fewer seed records than wanted when the mock was made or reset. */
  readonly shortfalls: readonly Shortfall[];
  /** Whether a reset takes the initial records of the design rather than seed records. */
  readonly initialRecords: boolean;
  /** What of the initial records did not fit the model when the mock was made or reset, and what was done about it. */
  readonly adjustments: readonly string[];
}

/** Somebody whom an arrangement or a release of a mock knows. */
export interface MockCredential {
  /** `null` where a release knows them. */
  readonly arrangement: string | null;
  /** The label; `null` where an arrangement knows them. */
  readonly release: string | null;
  readonly name: string;
  /** A password, a token or a key, whatever is asked for. */
  readonly secret: string;
  readonly roles: readonly string[];
  /** What they prove with who they are; any one will do. */
  readonly headers: readonly { readonly name: string; readonly value: string }[];
}

/** What is wanted of seed records. */
export interface SeedSettings extends SeedPlan {
  /**
   * The same number gives the same records.
   * @minimum 0
   * @maximum 4294967295
   * @TJS-type integer
   */
  readonly seed: number;
  /** Whether the initial records of the design are taken instead. */
  readonly initialRecords: boolean;
}

/** What goes wrong on purpose, and the number that makes a run of it repeatable. */
export interface Faults {
  /**
   * The same number gives the same run.
   * @minimum 0
   * @maximum 4294967295
   * @TJS-type integer
   */
  readonly seed: number;
  /** @maxItems 100 */
  readonly items: readonly FaultRule[];
}

/** Records of a mock as they were at a moment, under a name. */
export interface Snapshot {
  readonly name: string;
  /** @format date-time */
  readonly takenAt: string;
  /** @TJS-type integer */
  readonly records: number;
}

export interface NewSnapshot {
  /** @pattern ^[\p{L}\p{N}](?:[\p{L}\p{N} ._-]{0,58}[\p{L}\p{N}])?$ */
  readonly name: string;
}

/** What stands between the records of a mock and the newest model of its design. */
export interface MigrationView {
  /**
   * The revision that is served.
   * @TJS-type integer
   */
  readonly from: number;
  /**
   * The newest valid revision.
   * @TJS-type integer
   */
  readonly to: number;
  readonly steps: readonly MigrationStep[];
}

export interface Decisions {
  /** By the ids of steps. */
  readonly decisions: { readonly [name: string]: Decision };
}

export interface NewMessage extends ServedName {
  /**
   * Request line, header lines, an empty line, a body (RFC 9112).
   * @maxLength 2000000
   */
  readonly message: string;
}

export interface SentMessage {
  /** @TJS-type integer */
  readonly lastExchange: number;
}

/** What a mock answered within a second. */
export interface LoadSecond {
  /**
   * When it began.
   * @format date-time
   */
  readonly at: string;
  /**
   * How many connections were cut, and how many answers had a status of each class from 1xx to 5xx (RFC 9110 §15).
   * @minItems 6
   * @maxItems 6
   * @items.type integer
   */
  readonly answered: readonly number[];
  /** Milliseconds within which half of them were answered, to a fifth. */
  readonly p50: number;
  readonly p95: number;
  readonly p99: number;
  /** Bytes that the server used, all mocks together. */
  readonly memory: number;
  /** @TJS-type integer */
  readonly records: number;
}

export interface LoadQuery {
  /**
   * How many seconds back.
   * @minimum 1
   * @maximum 600
   * @default 60
   * @TJS-type integer
   */
  readonly seconds?: number;
}

export interface MocksQuery {
  /** Only mocks of this design. */
  readonly design?: string;
}

/** What can be done with mocks. */
export interface MockRoutes {
  /** List the mocks */
  'GET /api/mocks': {
    readonly query: MocksQuery;
    readonly answer: Items<Mock>;
    readonly problems: 'bad-parameter';
  };
  /** Create a mock and start it */
  'POST /api/mocks': {
    readonly body: NewMock;
    readonly status: 201;
    readonly answer: Mock;
    readonly headers: 'Location';
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'media-type';
  };
  /** Read a mock */
  'GET /api/mocks/{id}': { readonly answer: Mock; readonly problems: 'not-found' };
  /** Stop a mock and remove it with its records */
  'DELETE /api/mocks/{id}': { readonly status: 204; readonly problems: 'not-found' };
  /** Start a mock */
  'POST /api/mocks/{id}/start': { readonly answer: Mock; readonly problems: 'not-found' | 'conflict' };
  /** Stop a mock; its records stay */
  'POST /api/mocks/{id}/stop': { readonly answer: Mock; readonly problems: 'not-found' };
  /** Put fresh records in place of all: the initial ones of the design, or seed records */
  'POST /api/mocks/{id}/reset': { readonly answer: Mock; readonly problems: 'not-found' | 'unavailable' };
  /** Say which version answers requests that name none, where a header tells versions apart */
  'PUT /api/mocks/{id}/unversioned': {
    readonly body: ServedName;
    readonly answer: Mock;
    readonly problems: 'invalid' | 'not-found' | 'media-type';
  };
  /** Take the latest write back, as a write of its own */
  'POST /api/mocks/{id}/undo': {
    readonly answer: Mock;
    readonly problems: 'not-found' | 'conflict' | 'unavailable';
  };
  /** List whom a mock knows, with the headers they send */
  'GET /api/mocks/{id}/credentials': {
    readonly answer: Items<MockCredential>;
    readonly problems: 'not-found';
  };
  /** Read what is wanted of seed records */
  'GET /api/mocks/{id}/seed-plan': { readonly answer: SeedSettings; readonly problems: 'not-found' };
  /** Say what is wanted of seed records from the next reset on */
  'PUT /api/mocks/{id}/seed-plan': {
    readonly body: Partial<SeedSettings>;
    readonly answer: SeedSettings;
    readonly problems: 'invalid' | 'not-found' | 'unsound' | 'media-type';
  };
  /** Make the records of a seed plan, keep none of them, and tell how many of each type there would be and what the first are */
  'POST /api/mocks/{id}/seed-preview': {
    readonly body: Partial<SeedSettings>;
    readonly answer: SeedPreview;
    readonly problems: 'invalid' | 'not-found' | 'unsound' | 'media-type';
  };
  /** Read what was answered lately, by seconds in which something was */
  'GET /api/mocks/{id}/load': {
    readonly query: LoadQuery;
    readonly answer: Items<LoadSecond>;
    readonly problems: 'not-found' | 'bad-parameter';
  };
  /** Read what goes wrong on purpose */
  'GET /api/mocks/{id}/faults': { readonly answer: Faults; readonly problems: 'not-found' };
  /** Say what goes wrong: latency, failures, cut connections; for one operation or for all */
  'PUT /api/mocks/{id}/faults': {
    readonly body: Faults;
    readonly answer: Faults;
    readonly problems: 'invalid' | 'not-found' | 'media-type';
  };
  /** Read what stands between the records and the newest model of the design */
  'GET /api/mocks/{id}/migration': { readonly answer: MigrationView; readonly problems: 'not-found' };
  /** Migrate the records to the newest model as decided, after a snapshot; all or nothing */
  'POST /api/mocks/{id}/migration': {
    readonly body: Decisions;
    readonly answer: Mock;
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'media-type' | 'unavailable';
  };
  /** List the snapshots of a mock, the latest first */
  'GET /api/mocks/{id}/snapshots': { readonly answer: Items<Snapshot>; readonly problems: 'not-found' };
  /** Keep the records as they are, under a name */
  'POST /api/mocks/{id}/snapshots': {
    readonly body: NewSnapshot;
    readonly creates: true;
    readonly answer: Snapshot;
    readonly headers: 'Location';
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'media-type';
  };
  /** Put the records of a snapshot in the place of all */
  'POST /api/mocks/{id}/snapshots/{name}/restore': {
    readonly answer: Mock;
    readonly problems: 'not-found' | 'conflict' | 'unavailable';
  };
  /** Remove a snapshot */
  'DELETE /api/mocks/{id}/snapshots/{name}': { readonly status: 204; readonly problems: 'not-found' };
  /** Send a message to a mock as it travels */
  'POST /api/mocks/{id}/messages': {
    readonly body: NewMessage;
    readonly status: 202;
    readonly answer: SentMessage;
    readonly problems: 'invalid' | 'not-found' | 'conflict' | 'media-type' | 'unavailable';
  };
  /** Follow a mock: exchanges and changes as they happen */
  'GET /api/mocks/{id}/events': {
    readonly answerMedia: 'text/event-stream';
    readonly lastEventId: true;
    readonly problems: 'not-found';
  };
}
