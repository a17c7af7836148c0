import { tableNamed } from './readSchema.js';
import type { SqlForeignKey, SqlSchema, SqlTable } from './schema.js';
import { same } from './attributes.js';

/** A join table has two foreign keys that are its key together, and nothing points at it. */
export function isJoin(schema: SqlSchema, table: SqlTable): boolean {
  const [first, second] = table.foreign;
  if (first === undefined || second === undefined || table.foreign.length !== 2) return false;
  if (
    isReferredTo(schema, table) ||
    [first, second].some((foreign) => targetOf(schema, foreign) === undefined)
  )
    return false;
  const both = [...first.columns, ...second.columns];
  const covers = (names: readonly string[]): boolean => areSame(names, both);
  // A table of two unique references to one other may well be a thing of its own, such as a route.
  return covers(table.primary) || (!same(first.table, second.table) && table.uniques.some(covers));
}

const isReferredTo = (schema: SqlSchema, table: SqlTable): boolean =>
  [...schema.tables.values()].some(({ foreign }) =>
    foreign.some(({ table: name }) => same(name, table.name)),
  );

/** What a foreign key refers to by one column, or by the whole key; `undefined` where no table or no key is there. */
export function targetOf(
  schema: SqlSchema,
  { table, columns, references }: SqlForeignKey,
): SqlTable | undefined {
  const target = tableNamed(schema, table);
  if (target === undefined || columns.length === 1) return target;
  const isWhole = references.length === 0 || areSame(references, target.primary);
  return isWhole && columns.length === target.primary.length ? target : undefined;
}

/** Whether what a foreign key refers to is always there. */
export const isNeeded = ({ columns, primary }: SqlTable, foreign: SqlForeignKey): boolean =>
  foreign.columns.every(
    (name) =>
      primary.some((one) => same(one, name)) ||
      columns.some((column) => same(column.name, name) && column.notNull),
  );

/** Whether no two rows refer to the same. */
export const isUnique = ({ uniques, primary }: SqlTable, { columns }: SqlForeignKey): boolean =>
  [...uniques, primary].some((names) => areSame(names, columns));

/** Whether two lists have the same columns, in whatever order. */
export function areSame(some: readonly string[], others: readonly string[]): boolean {
  const both = new Set(others.map((name) => name.toLowerCase()));
  return some.length === both.size && some.every((name) => both.has(name.toLowerCase()));
}

/** Columns that are the table's own rather than part of a foreign key. */
export function ownColumns(table: SqlTable): SqlTable['columns'] {
  const foreign = new Set(
    table.foreign.flatMap(({ columns }) => columns.map((column) => column.toLowerCase())),
  );
  return table.columns.filter(({ name }) => !foreign.has(name.toLowerCase()));
}

/**
 * What rows are told apart by beside the row that they refer to: the foreign key, and the one column left of the key.
 * `null` where the key is anything else.
 */
export function keyWithin(
  schema: SqlSchema,
  table: SqlTable,
): { readonly foreign: SqlForeignKey; readonly column: string } | null {
  const own = table.primary.filter((name) => ownColumns(table).some((column) => same(column.name, name)));
  const [column] = own;
  if (column === undefined || own.length > 1 || table.primary.length < 2) return null;
  const foreign = table.foreign.find(
    (one) => targetOf(schema, one) !== undefined && areSame([...one.columns, column], table.primary),
  );
  return foreign === undefined ? null : { foreign, column };
}
