import type { SourceLines } from '../report.js';
import type { SqlToken } from './tokens.js';

/** What DDL declares, before it is read as entities. */
export interface SqlSchema {
  readonly tables: Map<string, SqlTable>;
  /** Enumerated types by lower-case name. */
  readonly enums: Map<string, readonly string[]>;
}

export interface SqlTable {
  readonly name: string;
  readonly lines: SourceLines;
  comment: string | null;
  readonly columns: SqlColumn[];
  primary: readonly string[];
  readonly uniques: (readonly string[])[];
  readonly foreign: SqlForeignKey[];
  readonly checks: SqlCheck[];
}

export interface SqlColumn {
  readonly name: string;
  readonly lines: SourceLines;
  /** In lower case, without arguments: `varchar`, `double precision`. */
  type: string;
  args: readonly string[];
  isArray: boolean;
  notNull: boolean;
  /** The server counts it up, or makes it otherwise. */
  auto: boolean;
  default: SqlDefault | null;
  /** Set to the time of every change. */
  onUpdateNow: boolean;
  comment: string | null;
  /** What the database computes it from; `null` where it is stored. */
  computed: readonly SqlToken[] | null;
}

export type SqlDefault =
  | { readonly kind: 'literal'; readonly value: string | number | boolean }
  | { readonly kind: 'now' }
  | { readonly kind: 'uuid' }
  | { readonly kind: 'other'; readonly text: string };

export interface SqlForeignKey {
  readonly columns: readonly string[];
  readonly table: string;
  readonly references: readonly string[];
  readonly onDelete: 'cascade' | 'set null' | 'restrict';
  readonly lines: SourceLines;
}

export interface SqlCheck {
  readonly lines: SourceLines;
  readonly text: string;
  /** What could be read of it; `null` where it is anything else. */
  readonly meaning:
    | { readonly kind: 'in'; readonly column: string; readonly options: readonly string[] }
    | {
        /** Of its values, or of how long they are. */
        readonly kind: 'range' | 'length';
        readonly column: string;
        readonly min: number | null;
        readonly max: number | null;
      }
    | null;
}
