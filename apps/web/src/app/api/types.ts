import type { MigrationStep } from '@isomeros/core/migration';
import type { SeedPlan } from '@isomeros/core/seeding';
import type { ImportedRecords } from '@isomeros/core/transfer';
import type { Choices } from '@isomeros/core/arrangement';
import type { ContractFigures, FingerprintColumn } from '@isomeros/core/contract';
import type { NearMiss, RecordChange, TraceStep, FaultRule } from '@isomeros/core/engine';
import type { Identities, PossibleRename } from '@isomeros/core/model';
import type { Diagnostic } from '@isomeros/core/notation';

/** What the server sends; described at /api/openapi.json. */
export interface DesignFigures extends ContractFigures {
  readonly entities: number;
  readonly relationships: number;
}

export interface DesignSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly createdAt: string;
  readonly changedAt: string;
  readonly valid: boolean;
  readonly figures: DesignFigures;
  readonly fingerprint: readonly FingerprintColumn[];
}

export interface Design extends DesignSummary {
  readonly text: string;
  /** The last saved text without errors. */
  readonly validText: string;
  readonly identities: Identities;
  readonly diagnostics: readonly Diagnostic[];
  readonly choices: Choices;
  /** What went and what came in its place: each may have been a rename. */
  readonly possibleRenames: readonly PossibleRename[];
}

export interface RevisionSummary {
  readonly number: number;
  readonly at: string;
  readonly what: 'begun' | 'text' | 'choices' | 'rename' | 'restored';
  readonly valid: boolean;
  readonly lines: { readonly added: number; readonly removed: number };
}

export interface Revision extends RevisionSummary {
  readonly text: string;
  readonly choices: Choices;
}

/** A contract frozen under a label. */
export interface Release {
  readonly label: string;
  readonly arrangement: string;
  readonly version: string;
  readonly revision: number;
  readonly operations: number;
  readonly madeAt: string;
  /** What is said about its end; `null` while it may be used. */
  readonly end: ReleaseEnd | null;
}

/** What is said about the end of a release. Moments are RFC 3339. */
export interface ReleaseEnd {
  readonly deprecatedAt: string;
  readonly sunsetAt: string | null;
  readonly successor: { readonly release: string } | { readonly arrangement: string } | null;
}

export interface LiveSchemaAddress {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
  readonly schema: string;
  readonly remote: boolean;
}

export interface LiveSchema {
  readonly ddl: string;
  readonly tables: number;
  readonly views: number;
}

export interface Sample {
  readonly id: string;
  readonly name: string;
  readonly description: string | null;
  readonly text: string;
  readonly figures: DesignFigures;
}

export interface Mock {
  readonly id: string;
  readonly design: string;
  readonly arrangements: readonly string[];
  readonly baseUrls: Readonly<Record<string, string>>;
  /** Labels of releases that share its records. */
  readonly releases: readonly string[];
  readonly releaseUrls: Readonly<Record<string, string>>;
  readonly port: number;
  readonly running: boolean;
  readonly seed: number;
  readonly records: number;
  readonly exchanges: number;
  readonly servesRevision: number;
  /** How many entries tell what goes wrong on purpose. */
  readonly faults: number;
  readonly obstacles: readonly string[];
  /** Entities that got fewer seed records than wanted. */
  readonly shortfalls: readonly {
    readonly entity: string;
    readonly wanted: number;
    readonly made: number;
    readonly why: string;
  }[];
}

/** What can be done with a mock as a whole. */
export type MockAction = 'start' | 'stop' | 'reset' | 'undo';

/** What goes wrong on purpose; the same seed gives the same run. */
export interface Faults {
  readonly seed: number;
  readonly items: readonly FaultRule[];
}

/** What is wanted of seed records. */
export interface SeedSettings extends SeedPlan {
  readonly seed: number;
}

/** How many records of a kind a mock has. */
export interface RecordType {
  readonly name: string;
  readonly records: number;
  /** Whether something of it is write-only. */
  readonly hasSecrets: boolean;
}

/** What stands between the records of a mock and the newest model of its design. */
export interface Migration {
  /** The revision that is served. */
  readonly from: number;
  readonly to: number;
  readonly steps: readonly MigrationStep[];
}

/** What became of records that were taken in, or would. */
export interface ImportResult {
  readonly done: boolean;
  readonly types: readonly ImportedRecords[];
}

/** Records of a mock as they were at a moment, under a name. */
export interface Snapshot {
  readonly name: string;
  readonly takenAt: string;
  readonly records: number;
}

export interface ExchangeSummary {
  readonly number: number;
  readonly at: string;
  /** The arrangement it was sent to. */
  readonly arrangement: string;
  readonly client: string;
  readonly method: string;
  readonly target: string;
  readonly operation: string | null;
  readonly status: number;
  readonly milliseconds: number;
}

export interface Message {
  readonly head: string;
  readonly body: string;
  readonly cut: boolean;
  /** The bytes of a body that may hold a secret and could not be masked. */
  readonly withheld: number | null;
}

export interface Exchange extends ExchangeSummary {
  readonly request: Message;
  readonly response: Message;
  readonly trace: readonly TraceStep[];
  /** Other operations it might have been meant for, and why it was not. */
  readonly nearMisses: readonly NearMiss[];
  readonly records: readonly RecordChange[];
}

export interface ProblemBody {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly errors?: readonly {
    readonly pointer?: string;
    readonly parameter?: string;
    readonly code: string;
    readonly message: string;
  }[];
  readonly diagnostics?: readonly Diagnostic[];
  /** What of a migration is still open. */
  readonly steps?: readonly MigrationStep[];
}
