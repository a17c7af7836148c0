import type { ExclusiveBounds, Range } from '../../model/index.js';
import { plainNumber } from './numbers.js';
import type { CheckDraft, ColumnDraft, ForeignDraft, TableDraft } from './draft.js';
import type { Dialect } from './dialect.js';
import { Identifiers } from './names.js';

/** Statements that declare tables, each after what it refers to; references in a circle are added last. */
export function printTables(dialect: Dialect, tables: readonly TableDraft[]): string {
  const printer = new Printer(dialect, tables);
  return printer.statements().join('\n\n');
}

class Printer {
  private readonly constraints: Identifiers;
  private readonly later: string[] = [];

  constructor(
    private readonly dialect: Dialect,
    private readonly tables: readonly TableDraft[],
  ) {
    this.constraints = new Identifiers(dialect);
    // Indexes of PostgreSQL share the names of tables.
    for (const { name } of tables) this.constraints.free(name);
  }

  statements(): readonly string[] {
    const created = new Set<string>();
    const all = this.tables.map((table) => {
      created.add(table.name);
      return this.table(table, created);
    });
    return [...all, ...this.later, ...this.comments()];
  }

  private table(table: TableDraft, created: ReadonlySet<string>): string {
    const { quoted } = this.dialect;
    const columns = this.names(table.primary);
    const foreign = table.foreign.flatMap((reference) => {
      const text = this.foreign(table, reference);
      if (created.has(reference.table)) return [text];
      this.later.push(`ALTER TABLE ${quoted(table.name)} ADD ${text};`);
      return [];
    });
    const parts = [
      ...table.columns.map((column) => this.column(column)),
      ...(table.primary.length === 0 ? [] : [`PRIMARY KEY (${columns})`]),
      ...table.uniques.map(
        (names) => `${this.constraint(table, names, 'key')} UNIQUE (${this.names(names)})`,
      ),
      ...table.checks.map(
        (check) => `${this.constraint(table, [check.column], 'check')} CHECK (${this.check(check)})`,
      ),
      ...foreign,
    ];
    const body = parts.map((part) => `  ${part}`).join(',\n');
    return `CREATE TABLE ${quoted(table.name)} (\n${body}\n)${this.dialect.tableOptions(table.comment)};`;
  }

  private column({ name, type, isRequired, default: usual, made, computed, comment }: ColumnDraft): string {
    const { quoted, counted, touched, now, uuid, text, columnComment } = this.dialect;
    const parts = [quoted(name), this.dialect.type(type)];
    if (computed !== null) parts.push(`GENERATED ALWAYS AS (${computed}) STORED`);
    if (made === 'counted') parts.push(counted);
    if (isRequired) parts.push('NOT NULL');
    if (usual?.kind === 'now') parts.push(`DEFAULT ${now}`);
    if (usual?.kind === 'uuid') parts.push(`DEFAULT ${uuid}`);
    if (usual?.kind === 'literal') {
      const { value } = usual;
      const said =
        typeof value === 'string'
          ? text(value)
          : typeof value === 'number'
            ? plainNumber(value)
            : value
              ? 'TRUE'
              : 'FALSE';
      parts.push(`DEFAULT ${said}`);
    }
    if (made === 'touched' && touched !== null) parts.push(touched);
    return parts.join(' ') + (comment === null ? '' : columnComment(comment));
  }

  private check(check: CheckDraft): string {
    const column = this.dialect.quoted(check.column);
    switch (check.kind) {
      case 'options':
        return `${column} IN (${check.options.map(this.dialect.text).join(', ')})`;
      case 'range':
        return bounds(column, check);
      case 'length':
        return bounds(`CHAR_LENGTH(${column})`, check);
    }
  }

  private foreign(table: TableDraft, { columns, table: to, references, onDelete }: ForeignDraft): string {
    const rule = onDelete === null ? '' : ` ON DELETE ${onDelete.toUpperCase()}`;
    return `${this.constraint(table, columns, 'fkey')} FOREIGN KEY (${this.names(columns)}) REFERENCES ${this.dialect.quoted(to)} (${this.names(references)})${rule}`;
  }

  private constraint(table: TableDraft, columns: readonly string[], kind: string): string {
    return `CONSTRAINT ${this.dialect.quoted(this.constraints.free([table.name, ...columns, kind].join('_')))}`;
  }

  private names(columns: readonly string[]): string {
    return columns.map(this.dialect.quoted).join(', ');
  }

  private comments(): readonly string[] {
    const { commentOn } = this.dialect;
    if (commentOn === null) return [];
    return this.tables.flatMap((table) => [
      ...(table.comment === null ? [] : [commentOn(table.name, null, table.comment)]),
      ...table.columns.flatMap(({ name, comment }) =>
        comment === null ? [] : [commentOn(table.name, name, comment)],
      ),
    ]);
  }
}

function bounds(what: string, { min, max, exclusiveMin, exclusiveMax }: Range & ExclusiveBounds): string {
  if (min !== null && max !== null && exclusiveMin !== true && exclusiveMax !== true)
    return `${what} BETWEEN ${plainNumber(min)} AND ${plainNumber(max)}`;
  const low = min === null ? [] : [`${what} ${exclusiveMin === true ? '>' : '>='} ${plainNumber(min)}`];
  const high = max === null ? [] : [`${what} ${exclusiveMax === true ? '<' : '<='} ${plainNumber(max)}`];
  return [...low, ...high].join(' AND ');
}
