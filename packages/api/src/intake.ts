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

/** What can be read from elsewhere. */
export interface IntakeRoutes {
  /** Read the declarations of a MariaDB schema */
  'POST /api/live-schemas': {
    readonly body: LiveSchemaAddress;
    readonly answer: LiveSchema;
    readonly problems: 'invalid' | 'media-type' | 'database';
  };
}
