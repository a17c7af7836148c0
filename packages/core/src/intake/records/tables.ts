import { isJsonObject, singular, type Json } from '../../model/index.js';
import { blockName, asMemberName, memberBeside, Names } from '../build.js';
import type { SourceLines } from '../lines.js';
import type { Report } from '../report.js';

/** A record as it was found, flat: nested records are tables of their own. */
export interface SampleRow {
  readonly values: ReadonlyMap<string, Json>;
  readonly lines: SourceLines;
  /** The record it was found in; `null` at the top. */
  readonly parent: SampleRow | null;
}

/** Records of one kind. */
export interface SampleTable {
  /** The name of its entity or value. */
  readonly name: string;
  readonly rows: readonly SampleRow[];
  /** Names of columns in the order of their first appearance, with the name as the model has it. */
  readonly columns: ReadonlyMap<string, string>;
  /** Where the records were found inside others; `null` at the top. */
  readonly within: { readonly table: string; readonly property: string; readonly many: boolean } | null;
}

/** A record of a source, before it is taken apart. */
export interface SampleRecord {
  readonly value: { readonly [name: string]: Json };
  readonly lines: SourceLines;
}

/** Columns beyond this are left out: no entity has so many attributes. */
const MOST_COLUMNS = 400;

interface OpenTable {
  readonly name: string;
  readonly rows: SampleRow[];
  readonly columns: Map<string, string>;
  readonly within: SampleTable['within'];
}

/** Takes records apart into tables: an object inside a record is a value, a list of objects a table below it. */
export class Tables {
  private readonly tables = new Map<string, OpenTable>();
  private readonly names = new Names();

  constructor(private readonly report: Report) {}

  all(): readonly SampleTable[] {
    return [...this.tables.values()];
  }

  /** Adds the records of a kind; where the source names none, one of them is called as it is said, and asked about. */
  add(kind: string, records: readonly SampleRecord[], said: string): void {
    const isNamed = kind !== '';
    const wanted = blockName(singular(asMemberName(isNamed ? kind : said, 'record')), 'Record');
    const name = this.names.free('', wanted);
    if (!isNamed) this.report.askRecord(records[0]?.lines ?? { line: 1, endLine: 1 }, name);
    this.fill(this.open(name, name, null), records, null);
  }

  private open(path: string, name: string, within: SampleTable['within']): OpenTable {
    const known = this.tables.get(path);
    if (known !== undefined) return known;
    const table: OpenTable = { name, rows: [], columns: new Map(), within };
    this.tables.set(path, table);
    return table;
  }

  private fill(table: OpenTable, records: readonly SampleRecord[], parent: SampleRow | null): void {
    for (const { value, lines } of records) {
      const values = new Map<string, Json>();
      const row: SampleRow = { values, lines, parent };
      table.rows.push(row);
      for (const [property, inner] of Object.entries(value)) {
        if (isJsonObject(inner) && Object.keys(inner).length > 0)
          this.fill(this.below(table, property, false), [{ value: inner, lines }], row);
        else if (isListOfObjects(inner))
          this.fill(
            this.below(table, property, true),
            inner.map((item) => ({ value: item, lines })),
            row,
          );
        else if (this.hasColumn(table, property, lines)) values.set(property, inner);
      }
    }
  }

  private below(table: OpenTable, property: string, many: boolean): OpenTable {
    const path = `${table.name}.${property}`;
    const known = this.tables.get(path);
    if (known !== undefined) return known;
    const short = blockName(singular(asMemberName(property, 'part')), 'Part');
    const name = this.names.take('', short) ? short : this.names.free('', table.name + short);
    return this.open(path, name, { table: table.name, property, many });
  }

  private hasColumn(table: OpenTable, property: string, lines: SourceLines): boolean {
    if (table.columns.has(property)) return true;
    if (table.columns.size >= MOST_COLUMNS) return false;
    const wanted = asMemberName(property, 'column');
    const taken = new Set(table.columns.values());
    const name = memberBeside((one) => taken.has(one), wanted);
    if (name !== wanted)
      this.report.assume(
        lines,
        `${property} is called ${name}.`,
        `${table.name} has something called ${wanted} already.`,
      );
    table.columns.set(property, name);
    return true;
  }
}

const isListOfObjects = (value: Json): value is readonly { readonly [name: string]: Json }[] =>
  Array.isArray(value) && value.length > 0 && (value as readonly Json[]).every((item) => isJsonObject(item));
