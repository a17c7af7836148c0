import type { Assumed, IntakeCount, IntakeQuestion, LeftOut, Understood } from '@isomeros/core/intake';

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

/** What can be read from elsewhere. */
export interface IntakeRoutes {
  /** Read the declarations of a MariaDB schema */
  'POST /api/live-schemas': {
    readonly body: LiveSchemaAddress;
    readonly answer: LiveSchema;
    readonly problems: 'invalid' | 'media-type' | 'database';
  };
}
