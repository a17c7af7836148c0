import { tableNamed } from './readSchema.js';
import type { SqlSchema, SqlTable } from './schema.js';
import { same } from './attributes.js';

/** A join table has two foreign keys that are its key together, and nothing points at it. */
export function isJoin(schema: SqlSchema, table: SqlTable): boolean {
  const [first, second] = table.foreign;
  if (first === undefined || second === undefined || table.foreign.length !== 2) return false;
  if (
    isReferredTo(schema, table) ||
    [first, second].some((foreign) => tableNamed(schema, foreign.table) === undefined)
  )
    return false;
  const both = new Set([...first.columns, ...second.columns].map((column) => column.toLowerCase()));
  const covers = (names: readonly string[]): boolean =>
    names.length === both.size && names.every((column) => both.has(column.toLowerCase()));
  // A table of two unique references to one other may well be a thing of its own, such as a route.
  return covers(table.primary) || (!same(first.table, second.table) && table.uniques.some(covers));
}

export const isReferredTo = (schema: SqlSchema, table: SqlTable): boolean =>
  [...schema.tables.values()].some(({ foreign }) =>
    foreign.some(({ table: name }) => same(name, table.name)),
  );

/** Columns that are the table's own rather than part of a foreign key. */
export function ownColumns(table: SqlTable): SqlTable['columns'] {
  const foreign = new Set(
    table.foreign.flatMap(({ columns }) => columns.map((column) => column.toLowerCase())),
  );
  return table.columns.filter(({ name }) => !foreign.has(name.toLowerCase()));
}
