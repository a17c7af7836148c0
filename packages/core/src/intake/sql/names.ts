import { camelCase, pascalCase, singular } from '../../model/index.js';
import type { SqlForeignKey, SqlSchema, SqlTable } from './schema.js';

/** Entities are named by the singular of their table. */
export function entityNames(schema: SqlSchema): ReadonlyMap<SqlTable, string> {
  const names = new Map<SqlTable, string>();
  const taken = new Set<string>();
  for (const table of schema.tables.values()) {
    const plain =
      pascalCase(singular(table.name.replace(/[^A-Za-z0-9]+/g, '_'))).replace(/^[^A-Z]+/, '') || 'Table';
    let name = plain;
    for (let number = 2; taken.has(name); number++) name = `${plain}${number}`;
    taken.add(name);
    names.set(table, name);
  }
  return names;
}

/**
 * `route_id` is the role route; `harbour_code`, which refers to `code`, is harbour. Of several columns, the first of
 * which the name of what it refers to is a part tells.
 */
export function roleFrom({ columns, references, table }: SqlForeignKey): string {
  const telling = columns.findIndex((name, at) =>
    name.toLowerCase().endsWith(`_${references[at] ?? 'id'}`.toLowerCase()),
  );
  const column = columns[Math.max(0, telling)] ?? '';
  const key = references[Math.max(0, telling)] ?? 'id';
  const plain = column.replace(new RegExp(`_?(${escapeForRegExp(key)}|id|fk)$`, 'i'), '');
  return camelCase(plain === '' ? singular(table) : plain) || 'other';
}

const escapeForRegExp = (text: string): string => text.replace(/[^A-Za-z0-9_]/g, '\\$&');
