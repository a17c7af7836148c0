import { entryOf } from '../../model/index.js';
import type { Bound } from '../bounds.js';
import type { SourceLines } from '../lines.js';
import type { SqlDialect } from './dialect.js';
import type { SqlToken } from './tokens.js';

/** A name as it is written: with the schema it stands in, or `null` where none is said. */
export interface SqlName {
  readonly schema: string | null;
  readonly name: string;
}

export interface SqlTable {
  name: string;
  /** In which schema it was declared; `null` where none was said. */
  readonly schema: string | null;
  readonly lines: SourceLines;
  comment: string | null;
  readonly columns: SqlColumn[];
  primary: SqlKey | null;
  readonly uniques: SqlKey[];
  readonly foreign: SqlForeignKey[];
  readonly checks: SqlCheck[];
  /** Tables that have its columns, too, and follow what becomes of them. */
  readonly heirs: SqlTable[];
}

/** Columns that tell rows apart. */
export interface SqlKey {
  name: string | null;
  columns: readonly string[];
  readonly lines: SourceLines;
}

export interface SqlColumn {
  name: string;
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
  name: string | null;
  columns: readonly string[];
  table: SqlName;
  references: readonly string[];
  readonly onDelete: 'cascade' | 'set null' | 'restrict';
  readonly lines: SourceLines;
}

export interface SqlCheck {
  name: string | null;
  readonly lines: SourceLines;
  readonly text: string;
  /** What it asks, all of which holds together; `null` where it is anything else. */
  readonly meaning: readonly SqlCheckMeaning[] | null;
}

export type SqlCheckMeaning =
  | { readonly kind: 'in'; readonly column: string; readonly options: readonly string[] }
  | {
      /** Of its values, or of how long they are. */
      readonly kind: 'range' | 'length';
      readonly column: string;
      readonly min: Bound | null;
      readonly max: Bound | null;
    };

/** A value of a row as it is written: numbers and words as texts, what is not a literal by itself. */
export type SqlCell = string | null | SqlBytes | { readonly kind: 'default' | 'now' | 'uuid' | 'other' };

/** Bytes in hexadecimal digits. */
export interface SqlBytes {
  readonly kind: 'bytes';
  readonly digits: string;
}

/** A row that a source writes, by the columns as they were then. */
export interface SqlRow {
  readonly table: SqlTable;
  /** `null` for one that the table does not have. */
  readonly columns: readonly (SqlColumn | null)[];
  readonly cells: readonly SqlCell[];
  readonly lines: SourceLines;
}

/** A type that a source declares: options, or another type with checks. */
export type SqlType =
  | { readonly kind: 'options'; readonly options: readonly string[] }
  | { readonly kind: 'domain'; readonly column: SqlColumn; readonly checks: readonly SqlCheck[] };

/** Schemas that need not be said. */
const USUAL_SCHEMAS: ReadonlySet<string> = new Set(['public', 'dbo']);

/** Whether a schema is the one that is meant where none is said. */
export const isUsualSchema = (schema: string | null): boolean =>
  schema === null || USUAL_SCHEMAS.has(schema.toLowerCase());

const keyOf = ({ schema, name }: SqlName): string =>
  `${isUsualSchema(schema) ? '' : (schema?.toLowerCase() ?? '')}.${name.toLowerCase()}`;

/** What DDL declares, before it is read as entities; the last state counts. */
export class SqlSchema {
  private readonly byKey = new Map<string, SqlTable>();
  /** Tables by their names alone, whatever schema they are in. */
  private readonly byName = new Map<string, Set<SqlTable>>();
  /** What tables were called that have another name by now: foreign keys may say it. */
  private readonly renamed = new Map<string, SqlTable>();
  private readonly types = new Map<string, SqlType>();
  /** The tables that others are parts of, which have their rows. */
  private readonly wholes = new Map<string, SqlTable>();
  readonly rows: SqlRow[] = [];
  /** Whether a 0 in a counted column asks for the next number, as MariaDB takes it unless it is told otherwise. */
  countsZero = false;
  /** Where names are looked for that say no schema. */
  current: string | null = null;

  constructor(readonly dialect: SqlDialect) {}

  get tables(): readonly SqlTable[] {
    return [...this.byKey.values()];
  }

  add(table: SqlTable): void {
    const key = keyOf(table);
    const renamed = this.renamed.get(key);
    // Whoever named the table that was called so goes on to mean that one.
    if (renamed !== undefined) {
      for (const { foreign } of this.byKey.values())
        for (const one of foreign)
          if (this.table(one.table) === renamed) one.table = { schema: renamed.schema, name: renamed.name };
      this.renamed.delete(key);
    }
    this.remove(this.byKey.get(key) ?? table);
    this.byKey.set(key, table);
    entryOf(this.byName, table.name.toLowerCase(), () => new Set<SqlTable>()).add(table);
  }

  /** The table of a name: in the schema that is said, the current one, or the only one that has it. */
  table(name: SqlName): SqlTable | undefined {
    const [placed, plain] = [keyOf(this.placed(name)), keyOf(name)];
    const exact =
      this.byKey.get(placed) ?? this.byKey.get(plain) ?? this.renamed.get(placed) ?? this.renamed.get(plain);
    if (exact !== undefined || name.schema !== null) return exact;
    const [only, more] = this.byName.get(name.name.toLowerCase()) ?? [];
    return more === undefined ? only : undefined;
  }

  /** A name where it says its schema, or is in the current one. */
  placed({ schema, name }: SqlName): SqlName {
    return { schema: schema ?? this.current, name };
  }

  remove(table: SqlTable): void {
    this.byKey.delete(keyOf(table));
    this.byName.get(table.name.toLowerCase())?.delete(table);
  }

  /** Gives a table another name; whatever refers to it goes on to. */
  rename(table: SqlTable, name: string): void {
    this.remove(table);
    this.renamed.set(keyOf(table), table);
    table.name = name;
    this.add(table);
  }

  /** Foreign keys of all tables that refer to one. */
  referringTo(table: SqlTable): readonly SqlForeignKey[] {
    return this.tables.flatMap(({ foreign }) => foreign.filter((one) => this.table(one.table) === table));
  }

  /** A table is a part of another one, and has no rows of its own. */
  addPart(part: SqlName, whole: SqlName): void {
    const table = this.holderOf(whole);
    if (table !== undefined) this.wholes.set(keyOf(this.placed(part)), table);
  }

  /** The table that has the rows that are written to one. */
  holderOf(name: SqlName): SqlTable | undefined {
    return this.wholes.get(keyOf(this.placed(name))) ?? this.table(name);
  }

  /** Whether a counted column gets its number from the database. */
  isCounted({ auto }: SqlColumn, cell: SqlCell | undefined): boolean {
    if (!auto) return false;
    return typeof cell === 'string' ? this.countsZero && Number(cell) === 0 : true;
  }

  addType({ name }: SqlName, type: SqlType): void {
    this.types.set(name.toLowerCase(), type);
  }

  type(name: string): SqlType | undefined {
    return this.types.get(name);
  }
}

/** Names of SQL are the same in whatever case. */
export const same = (a: string | undefined, b: string): boolean => a?.toLowerCase() === b.toLowerCase();

export const newColumn = (name: string, lines: SourceLines): SqlColumn => ({
  name,
  lines,
  type: '',
  args: [],
  isArray: false,
  notNull: false,
  auto: false,
  default: null,
  onUpdateNow: false,
  comment: null,
  computed: null,
});

export const newTable = ({ schema, name }: SqlName, lines: SourceLines): SqlTable => ({
  name,
  schema,
  lines,
  comment: null,
  columns: [],
  primary: null,
  uniques: [],
  foreign: [],
  checks: [],
  heirs: [],
});

export const columnNamed = (table: SqlTable, name: string | null): SqlColumn | undefined =>
  name === null ? undefined : table.columns.find((column) => same(column.name, name));

/** Columns of a primary key are never null, and stay so when it is dropped (SQL:2016 part 2, 11.7). */
export function imposeNotNull({ primary, columns }: SqlTable): void {
  const keyed = new Set((primary?.columns ?? []).map((name) => name.toLowerCase()));
  for (const column of columns) if (keyed.has(column.name.toLowerCase())) column.notNull = true;
}
