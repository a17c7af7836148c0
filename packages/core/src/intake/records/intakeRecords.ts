import { bareObject, entryOf, type Json } from '../../model/index.js';
import { IntakeRecordIndex, newIntakeRecord, setPointer, type IntakeRecord } from '../intakeRecord.js';
import type { TableKey } from './keys.js';
import type { SampleRow, SampleTable } from './tables.js';

/** What a column became. */
export type ColumnMember =
  | { readonly kind: 'attribute'; readonly name: string }
  | { readonly kind: 'reference'; readonly role: string; readonly target: SampleTable };

/** What the records of a table are to those that they were found in. */
export type TableMember =
  | { readonly kind: 'value'; readonly name: string }
  /** The role by which it leads to its owner. */
  | { readonly kind: 'owned'; readonly role: string }
  /** The role by which what it was found in leads to it. */
  | { readonly kind: 'referred'; readonly role: string };

/** What tables and their columns became in the model. */
export class TableMembers {
  private readonly columns = new Map<SampleTable, Map<string, ColumnMember>>();
  private readonly tables = new Map<SampleTable, TableMember>();

  set(table: SampleTable, member: TableMember): void {
    this.tables.set(table, member);
  }

  of(table: SampleTable): TableMember | null {
    return this.tables.get(table) ?? null;
  }

  setColumn(table: SampleTable, column: string, member: ColumnMember): void {
    entryOf(this.columns, table, () => new Map<string, ColumnMember>()).set(column, member);
  }

  /** Whether some column refers to the records of a table. */
  isReferredTo(table: SampleTable): boolean {
    return [...this.columns.values()].some((columns) =>
      [...columns.values()].some((member) => member.kind === 'reference' && member.target === table),
    );
  }

  column(table: SampleTable, column: string): ColumnMember | null {
    return this.columns.get(table)?.get(column) ?? null;
  }
}

/** Sample records as those of the model that was read from them. */
export function intakeRecords(
  tables: readonly SampleTable[],
  keys: ReadonlyMap<SampleTable, TableKey | null>,
  members: TableMembers,
): readonly IntakeRecord[] {
  const values = tables.filter((table) => members.of(table)?.kind === 'value');
  const things = tables.filter((table) => members.of(table)?.kind !== 'value');
  const found = numbered(things, keys, members);
  const inside = new Map<SampleRow, { readonly table: SampleTable; readonly row: SampleRow }[]>();
  for (const table of values)
    for (const row of table.rows)
      if (row.parent !== null) entryOf(inside, row.parent, () => []).push({ table, row });
  const records = found.rows.map(({ table, row }) => {
    const record = newIntakeRecord(table.name, row.lines);
    const valuesOf = (of: SampleTable, from: SampleRow, into: Record<string, Json>): void => {
      for (const [column, value] of from.values) {
        const member = members.column(of, column);
        if (member?.kind === 'attribute') into[member.name] = value;
      }
      for (const part of inside.get(from) ?? []) {
        const member = members.of(part.table);
        if (member?.kind !== 'value') continue;
        const object = bareObject();
        valuesOf(part.table, part.row, object);
        into[member.name] = object;
      }
    };
    valuesOf(table, row, record.values);
    for (const [column, value] of row.values) {
      const member = members.column(table, column);
      if (member?.kind !== 'reference' || value === null) continue;
      const index = found.byKey.get(member.target) ?? new IntakeRecordIndex();
      setPointer(record, member.role, index.pointer([textOf(value)]));
    }
    return record;
  });
  for (const table of things) {
    const member = members.of(table);
    for (const row of member === null ? [] : table.rows) {
      const own = found.numbers.get(row);
      const above = row.parent === null ? undefined : found.numbers.get(row.parent);
      if (member === null || own === undefined || above === undefined) continue;
      const from = records[member.kind === 'owned' ? own : above];
      const to = member.kind === 'owned' ? above : own;
      if (from !== undefined && member.kind !== 'value') setPointer(from, member.role, { to });
    }
  }
  return records;
}

interface NumberedRows {
  readonly rows: readonly { readonly table: SampleTable; readonly row: SampleRow }[];
  readonly numbers: ReadonlyMap<SampleRow, number>;
  readonly byKey: ReadonlyMap<SampleTable, IntakeRecordIndex>;
}

/** The rows that are records of their own: what is found inside several others with the same key is one. */
function numbered(
  tables: readonly SampleTable[],
  keys: ReadonlyMap<SampleTable, TableKey | null>,
  members: TableMembers,
): NumberedRows {
  const rows: { table: SampleTable; row: SampleRow }[] = [];
  const numbers = new Map<SampleRow, number>();
  const byKey = new Map<SampleTable, IntakeRecordIndex>();
  const repeated = new Set<SampleRow>();
  const holdsOthers = new Set(tables.map(({ within }) => within?.table));
  for (const table of tables) {
    const isShared = members.of(table)?.kind === 'referred';
    // Of very many records only what others lead by is looked at.
    const key = isShared || members.isReferredTo(table) ? (keys.get(table) ?? null) : null;
    const isNested = table.within !== null || holdsOthers.has(table.name);
    const index = entryOf(byKey, table, () => new IntakeRecordIndex());
    for (const row of table.rows) {
      const value = key === null ? undefined : row.values.get(key.column);
      const values = value === undefined ? null : [textOf(value)];
      const known = isShared && values !== null ? index.pointer(values) : null;
      if (known !== null && 'to' in known) numbers.set(row, known.to);
      // What comes again brings what it holds again.
      if (numbers.has(row) || (row.parent !== null && repeated.has(row.parent))) {
        repeated.add(row);
        continue;
      }
      if (isNested) numbers.set(row, rows.length);
      if (values !== null) index.add(values, rows.length);
      rows.push({ table, row });
    }
  }
  return { rows, numbers, byKey };
}

const textOf = (value: Json): string => (typeof value === 'string' ? value : JSON.stringify(value));
