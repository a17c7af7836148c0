import { camelCase, singular } from '../../model/index.js';
import { blockName } from '../build.js';
import { isUsualSchema, type SqlForeignKey, type SqlSchema, type SqlTable } from './schema.js';

/** Entities are named by the singular of their table; the schema tells apart what is called alike in two. */
export function entityNames(schema: SqlSchema): ReadonlyMap<SqlTable, string> {
  const plainNames = new Map(
    schema.tables.map((table) => [table, blockName(singular(table.name), 'Table')] as const),
  );
  const inUsualSchema = new Set(
    schema.tables.flatMap((table) => (isUsualSchema(table.schema) ? (plainNames.get(table) ?? []) : [])),
  );
  const names = new Map<SqlTable, string>();
  const taken = new Set<string>();
  for (const [table, plain] of plainNames) {
    const isOthers = !isUsualSchema(table.schema) && inUsualSchema.has(plain);
    const inSchema = `${blockName(table.schema ?? '', '')}${plain}`;
    let name = isOthers || taken.has(plain) ? inSchema : plain;
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
  const plain = withoutKey(column, references[Math.max(0, telling)] ?? 'id', singular(table.name));
  return camelCase(plain === '' ? singular(table.name) : plain).replace(/^[^a-z]+/, '') || 'other';
}

/** A column without the part that names the key: `route_id`, `routeId`, and `routeid` where it refers to routes. */
function withoutKey(column: string, key: string, target: string): string {
  const lower = column.toLowerCase();
  for (const end of [key.toLowerCase(), 'id', 'fk']) {
    if (lower === end) return '';
    if (!lower.endsWith(end)) continue;
    const rest = column.slice(0, -end.length);
    const isApart =
      rest.endsWith('_') || /[a-z0-9][A-Z]/.test(column.slice(rest.length - 1, rest.length + 1));
    if (isApart || rest.toLowerCase() === target.toLowerCase().replace(/_/g, ''))
      return rest.replace(/_+$/, '');
  }
  return column;
}
