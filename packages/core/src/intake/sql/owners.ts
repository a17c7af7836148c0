import { areSame, isJoin, isNeeded, isUnique, keyColumns, targetOf } from './joins.js';
import type { SqlForeignKey, SqlSchema, SqlTable } from './schema.js';

/**
 * The foreign key by which the rows of each table belong to rows of another: it is never null, and what it refers to
 * takes them along. What there is one of for each owner has no id of its own, so only what belongs to it refers to it.
 */
export function ownersOf(schema: SqlSchema): ReadonlyMap<SqlTable, SqlForeignKey> {
  const { tables } = schema;
  const things = tables.filter((table) => !isJoin(schema, table));
  const referredTo = new Set<SqlTable>();
  for (;;) {
    const owners = new Map<SqlTable, SqlForeignKey>();
    for (const table of things) {
      const owner = table.foreign.find(
        (foreign) =>
          foreign.onDelete === 'cascade' &&
          isNeeded(table, foreign) &&
          ![undefined, table].includes(targetOf(schema, foreign)) &&
          (!isUnique(table, foreign) ||
            (areSame(foreign.columns, keyColumns(table)) && !referredTo.has(table))),
      );
      if (owner !== undefined) owners.set(table, owner);
    }
    const slots = new Set([...owners].flatMap(([table, owner]) => (isUnique(table, owner) ? [table] : [])));
    const more = tables.flatMap((table) =>
      table.foreign.flatMap((foreign) => {
        const target = targetOf(schema, foreign);
        return target !== undefined && slots.has(target) && owners.get(table) !== foreign ? [target] : [];
      }),
    );
    if (more.length === 0) return owners;
    for (const table of more) referredTo.add(table);
  }
}
