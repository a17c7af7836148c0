import type { ExclusiveBounds, Range } from '../../model/index.js';
import type { ColumnDefault, ColumnType } from './dialect.js';

/** DraftedTables as they are declared, before a dialect spells them. */
export interface TableDraft {
  readonly name: string;
  readonly comment: string | null;
  readonly columns: readonly ColumnDraft[];
  readonly primary: readonly string[];
  /** Sorted by their columns. */
  readonly uniques: readonly (readonly string[])[];
  readonly checks: readonly CheckDraft[];
  readonly foreign: readonly ForeignDraft[];
}

export interface ColumnDraft {
  readonly name: string;
  readonly type: ColumnType;
  readonly isRequired: boolean;
  readonly default: ColumnDefault | null;
  /** `counted`: the database counts it up; `touched`: it keeps the time of the last change. */
  readonly made: 'counted' | 'touched' | null;
  /** What it is computed from, as SQL; `null` where it is stored. */
  readonly computed: string | null;
  readonly comment: string | null;
}

/** A description as a comment; one without words is none to a database. */
export const commentOf = ({ description }: { readonly description: string | null }): string | null =>
  description === '' ? null : description;

/** What values of one column satisfy. */
export type CheckDraft = { readonly column: string } & (
  | { readonly kind: 'options'; readonly options: readonly string[] }
  | ({ readonly kind: 'range' | 'length' } & Range & ExclusiveBounds)
);

export interface ForeignDraft {
  readonly columns: readonly string[];
  readonly table: string;
  readonly references: readonly string[];
  readonly onDelete: 'cascade' | 'set null' | null;
}
