import { bareObject, carriedName, entryOf, pairTypeName, sideRoles, type Json } from '../../model/index.js';
import {
  IntakeRecordIndex,
  newIntakeRecord,
  setPointer,
  type IntakeRecord,
  type OpenIntakeRecord,
} from '../intakeRecord.js';
import { counted } from '../build.js';
import type { SourceLines } from '../lines.js';
import type { Report } from '../report.js';
import { baseColumn } from './columnTypes.js';
import { columnValue } from './columnValue.js';
import { keyColumns, targetOf } from './joins.js';
import type { RelationshipBuilder } from './relationshipBuilder.js';
import {
  columnNamed,
  type SqlCell,
  type SqlColumn,
  type SqlForeignKey,
  type SqlRow,
  type SqlSchema,
  type SqlTable,
} from './schema.js';

/** What tables and their columns became. */
export interface SqlNames {
  readonly names: ReadonlyMap<SqlTable, string>;
  readonly members: ReadonlyMap<SqlColumn, string>;
  readonly relationships: Pick<RelationshipBuilder, 'rolesOf' | 'pairings'>;
}

/** A foreign key that rows lead by: its own columns, and those that these refer to. */
interface Reference {
  readonly role: string;
  readonly columns: readonly (SqlColumn | undefined)[];
  readonly target: SqlTable;
  readonly referred: readonly (SqlColumn | undefined)[];
}

const GONE = 'Its table is dropped later.';

/** Reads the rows of a source as records of what its tables became. */
export class RowReader {
  private readonly rows: readonly SqlRow[];
  private readonly indexes = new Map<string, IntakeRecordIndex>();
  private readonly bases = new Map<SqlColumn, SqlColumn>();
  /** Values that are no literals, by their columns. */
  private readonly unread = new Map<
    SqlColumn,
    { readonly table: SqlTable; readonly lines: SourceLines; readonly count: number }
  >();

  constructor(
    private readonly schema: SqlSchema,
    private readonly said: SqlNames,
    private readonly now: number | null,
    private readonly report: Report,
  ) {
    const there = new Set(schema.tables);
    this.rows = schema.rows.filter(({ table, lines }) => {
      if (there.has(table)) return true;
      report.tally('records', null);
      report.leave(lines, table.name, GONE);
      return false;
    });
  }

  records(): readonly IntakeRecord[] {
    const references = new Map(this.schema.tables.map((table) => [table, this.references(table)]));
    const there = new Map(this.schema.tables.map((table) => [table, new Set(table.columns)]));
    const cells = this.rows.map((row) => cellsOf(row, there.get(row.table) ?? new Set<SqlColumn>()));
    this.count(cells);
    this.findRows(cells, [...references.values()].flat());
    const records = this.rows.map((row, index) =>
      this.record(row, cells[index] ?? new Map<SqlColumn, SqlCell>(), references.get(row.table) ?? []),
    );
    this.tellUnread();
    return records;
  }

  /** What is counted and not written gets the number that the database would give it: others may lead there. */
  private count(cells: readonly Map<SqlColumn, SqlCell>[]): void {
    const last = new Map<SqlColumn, number>();
    this.rows.forEach(({ table }, index) => {
      for (const column of table.columns) {
        if (!column.auto) continue;
        const cell = cells[index]?.get(column);
        const isLeft = this.schema.isCounted(column, cell);
        const before = last.get(column) ?? 0;
        const number = isLeft ? before + 1 : Number(cell);
        if (isLeft) cells[index]?.set(column, String(number));
        if (number > before) last.set(column, number);
      }
    });
  }

  private references(table: SqlTable): readonly Reference[] {
    const pairs = this.said.relationships.pairings.get(table);
    const sides = pairs === undefined ? [] : sideRoles(pairs);
    return table.foreign.flatMap((foreign, at) => {
      const role = pairs === undefined ? this.said.relationships.rolesOf.get(foreign) : sides[at];
      const target = targetOf(this.schema, foreign);
      if (role === undefined || target === undefined) return [];
      const columns = foreign.columns.map((name) => columnNamed(table, name));
      return [{ role, columns, target, referred: this.referred(foreign, target) }];
    });
  }

  private referred({ references, columns }: SqlForeignKey, target: SqlTable): Reference['referred'] {
    const names = references.length === 0 ? keyColumns(target).slice(0, columns.length) : references;
    return names.map((name) => columnNamed(target, name));
  }

  /** Finds the rows of all tables that others lead to, by the columns that these refer to. */
  private findRows(
    cells: readonly ReadonlyMap<SqlColumn, SqlCell>[],
    references: readonly Reference[],
  ): void {
    const wanted = new Map<SqlTable, Map<string, Reference['referred']>>();
    for (const { target, referred } of references) {
      const byKey = entryOf(wanted, target, () => new Map<string, Reference['referred']>());
      byKey.set(indexKey(target, referred), referred);
    }
    this.rows.forEach(({ table }, index) => {
      for (const [key, columns] of wanted.get(table) ?? []) {
        const values = valuesIn(cells[index], columns);
        if (values !== null) entryOf(this.indexes, key, () => new IntakeRecordIndex()).add(values, index);
      }
    });
  }

  private record(
    { table, lines }: SqlRow,
    cells: ReadonlyMap<SqlColumn, SqlCell>,
    references: readonly Reference[],
  ): IntakeRecord {
    const pairs = this.said.relationships.pairings.get(table);
    const type = pairs === undefined ? (this.said.names.get(table) ?? '') : pairTypeName(pairs);
    const record = newIntakeRecord(type, lines);
    const carried = pairs?.carrying ?? null;
    const into = carried === null ? record.values : bareObject();
    for (const [column, cell] of cells) this.setValue(table, column, cell, into, record);
    if (carried !== null) record.values[carriedName(carried)] = into;
    for (const { role, columns, target, referred } of references) {
      const values = valuesIn(cells, columns);
      if (values === null) continue;
      const index = this.indexes.get(indexKey(target, referred)) ?? new IntakeRecordIndex();
      setPointer(record, role, index.pointer(values));
    }
    return record;
  }

  private setValue(
    table: SqlTable,
    column: SqlColumn,
    cell: SqlCell,
    into: Record<string, Json>,
    { line, endLine }: OpenIntakeRecord,
  ): void {
    const name = this.said.members.get(column);
    if (name === undefined || column.computed !== null) return;
    const read = columnValue(this.base(column), cell, this.now);
    if (read.kind === 'value') into[name] = read.value;
    if (read.kind !== 'unread') return;
    const known = this.unread.get(column);
    this.unread.set(column, {
      table,
      lines: { line: known?.lines.line ?? line, endLine },
      count: (known?.count ?? 0) + 1,
    });
  }

  private base(column: SqlColumn): SqlColumn {
    return entryOf(this.bases, column, () => baseColumn(this.schema, column));
  }

  private tellUnread(): void {
    for (const [{ name, type }, { table, lines, count }] of this.unread)
      this.report.leave(
        lines,
        `${table.name}.${name}: ${counted(count, 'value')}`,
        `No literal of ${type} is written there; what is not known is unset.`,
      );
  }
}

/** Cells by the columns that are still there. */
const cellsOf = ({ columns, cells }: SqlRow, there: ReadonlySet<SqlColumn>): Map<SqlColumn, SqlCell> =>
  new Map(
    columns.flatMap((column, at) =>
      column !== null && there.has(column) ? [[column, cells[at] ?? null] as const] : [],
    ),
  );

/** The values of some columns as texts; `null` where one is unset. */
function valuesIn(
  cells: ReadonlyMap<SqlColumn, SqlCell> | undefined,
  columns: readonly (SqlColumn | undefined)[],
): readonly string[] | null {
  const values: string[] = [];
  for (const column of columns) {
    const cell = column === undefined ? null : (cells?.get(column) ?? null);
    if (cell === null) return null;
    if (typeof cell === 'string') values.push(cell);
    else if (cell.kind === 'bytes') values.push(cell.digits.toLowerCase());
    else return null;
  }
  return values;
}

const indexKey = ({ schema, name }: SqlTable, columns: Reference['referred']): string =>
  JSON.stringify([schema, name, ...columns.map((column) => column?.name ?? null)]);
