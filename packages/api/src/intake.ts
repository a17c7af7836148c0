import type { Assumed, IntakeCount, IntakeQuestion, LeftOut, Understood } from '@isomeros/core/intake';
import type { NewDesign } from './designs.js';
import type { ProblemBody } from './problems.js';

/** How to reach a schema of a MariaDB. The password is used once and kept nowhere. */
export interface LiveSchemaAddress {
  /** @pattern ^[A-Za-z0-9.:_-]{1,253}$ */
  readonly host: string;
  /**
   * @minimum 1
   * @maximum 65535
   * @TJS-type integer
   */
  readonly port: number;
  /** @maxLength 128 */
  readonly user: string;
  /** @maxLength 1024 */
  readonly password: string;
  /** @maxLength 64 */
  readonly schema: string;
  /** Confirms that the host need not be on this machine. */
  readonly remote?: boolean;
}

/** The declarations of a schema as DDL. */
export interface LiveSchema {
  readonly ddl: string;
  /** @TJS-type integer */
  readonly tables: number;
  /** @TJS-type integer */
  readonly views: number;
}

/** A decision that a source leaves open, and what was taken to be so. */
export interface ReportedQuestion extends Pick<IntakeQuestion, 'line' | 'endLine' | 'question' | 'ground'> {
  readonly options: readonly { readonly label: string; readonly assumed: boolean }[];
}

/** What became of a source: the same that the page shows before a design is kept. */
export interface IntakeReport {
  readonly understood: readonly Understood[];
  readonly assumed: readonly Assumed[];
  readonly asked: readonly ReportedQuestion[];
  readonly leftOut: readonly LeftOut[];
  readonly counts: readonly IntakeCount[];
}

/** A source that is read as a design while whoever sent it does something else. It is told of for ten minutes after its end. */
export interface RunningIntake {
  /** @format uuid */
  readonly id: string;
  /** The share of the reading that is done, from 0 to 1. */
  readonly done: number;
  /** The id of the design that was made; `null` before. */
  readonly design: string | null;
  /** What became of the source, once there is a design. */
  readonly report: IntakeReport | null;
  /** Why there is none and will be none. */
  readonly problem: ProblemBody | null;
}

/** What can be read from elsewhere. */
export interface IntakeRoutes {
  /** Read the declarations of a MariaDB schema */
  'POST /api/live-schemas': {
    readonly body: LiveSchemaAddress;
    readonly answer: LiveSchema;
    readonly problems: 'invalid' | 'media-type' | 'database';
  };
  /** Create a design without waiting for it: how far it is, and what became of it, is told where the answer leads */
  'POST /api/intakes': {
    readonly body: NewDesign;
    readonly status: 202;
    readonly answer: RunningIntake;
    readonly headers: 'Location';
    readonly problems: 'invalid' | 'too-large' | 'media-type' | 'conflict';
  };
  /** Read how far an intake is, or what became of it */
  'GET /api/intakes/{id}': { readonly answer: RunningIntake; readonly problems: 'not-found' };
  /** Cancel an intake, or forget what became of it */
  'DELETE /api/intakes/{id}': { readonly status: 204; readonly problems: 'not-found' };
}
