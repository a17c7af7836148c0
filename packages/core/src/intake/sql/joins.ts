import { memoize } from '../../model/index.js';
import { columnNamed, same, type SqlForeignKey, type SqlSchema, type SqlTable } from './schema.js';

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
  return (
    covers(keyColumns(table)) ||
    (targetOf(schema, first) !== targetOf(schema, second) &&
      table.uniques.some(({ columns }) => covers(columns)))
  );
}

const isReferredTo = (schema: SqlSchema, table: SqlTable): boolean => referredTo(schema).has(table);

/** All tables that some table refers to; a schema is read whole before it is asked. */
const referredTo = memoize(
  (schema: SqlSchema): ReadonlySet<SqlTable | undefined> =>
    new Set(schema.tables.flatMap(({ foreign }) => foreign.map((one) => schema.table(one.table)))),
);

/** The columns of the primary key; none where there is no key. */
export const keyColumns = ({ primary }: SqlTable): readonly string[] => primary?.columns ?? [];

/** What a foreign key refers to by one column, or by the whole key; `undefined` where no table or no key is there. */
export function targetOf(
  schema: SqlSchema,
  { table, columns, references }: SqlForeignKey,
): SqlTable | undefined {
  const target = schema.table(table);
  // A column that it refers to may be gone by now.
  if (target === undefined || references.some((name) => columnNamed(target, name) === undefined))
    return undefined;
  if (columns.length === 1) return target;
  const isWhole = references.length === 0 || areSame(references, keyColumns(target));
  return isWhole && columns.length === keyColumns(target).length ? target : undefined;
}

/** Whether what a foreign key refers to is always there. */
export const isNeeded = (table: SqlTable, foreign: SqlForeignKey): boolean =>
  foreign.columns.every(
    (name) =>
      keyColumns(table).some((one) => same(one, name)) ||
      table.columns.some((column) => same(column.name, name) && column.notNull),
  );

/** Whether no two rows refer to the same. */
export const isUnique = (table: SqlTable, { columns }: SqlForeignKey): boolean =>
  [...table.uniques.map((unique) => unique.columns), keyColumns(table)].some((names) =>
    areSame(names, columns),
  );

/** Whether two lists have the same columns, in whatever order. */
export function areSame(some: readonly string[], others: readonly string[]): boolean {
  const both = new Set(others.map((name) => name.toLowerCase()));
  return some.length === both.size && some.every((name) => both.has(name.toLowerCase()));
}

/** The columns by which a table refers to others that are there, in lower case. */
const referringColumns = (schema: SqlSchema, { foreign }: SqlTable): ReadonlySet<string> =>
  new Set(
    foreign.flatMap((one) =>
      targetOf(schema, one) === undefined ? [] : one.columns.map((column) => column.toLowerCase()),
    ),
  );

/** Columns that are the table's own rather than part of a reference to a table that is there. */
export function ownColumns(schema: SqlSchema, table: SqlTable): SqlTable['columns'] {
  const referring = referringColumns(schema, table);
  return table.columns.filter(({ name }) => !referring.has(name.toLowerCase()));
}

/**
 * What rows are told apart by beside the row that they refer to: the foreign key, and the one column left of the key.
 * `null` where the key is anything else.
 */
export function keyWithin(
  schema: SqlSchema,
  table: SqlTable,
): { readonly foreign: SqlForeignKey; readonly column: string } | null {
  const key = keyColumns(table);
  const columns = ownColumns(schema, table);
  const own = key.filter((name) => columns.some((column) => same(column.name, name)));
  const [column] = own;
  if (column === undefined || own.length > 1 || key.length < 2) return null;
  const foreign = table.foreign.find(
    (one) => targetOf(schema, one) !== undefined && areSame([...one.columns, column], key),
  );
  return foreign === undefined ? null : { foreign, column };
}
