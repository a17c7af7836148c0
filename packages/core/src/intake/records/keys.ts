import { memberName } from '../build.js';
import type { Profile } from './profile.js';
import type { SampleTable } from './tables.js';

export interface TableKey {
  readonly column: string;
  /** Whether the server would make it: numbers that count, and uuids. */
  readonly generated: boolean;
  readonly values: ReadonlySet<string>;
}

const KEY_NAMES = ['id', '_id', 'uuid', 'key', 'code'];

/** The column that tells the records of a table apart: always there, never twice, and named like a key. */
export function keyOfTable(table: SampleTable, profiles: readonly Profile[]): TableKey | null {
  const own = memberName(table.name, 'record');
  const wanted = new Set([...KEY_NAMES, `${own}Id`, `${own}Code`, `${own}Number`, `${own}Key`]);
  const fitting = profiles.filter(({ column, type, missing, present, distinct }) => {
    const isScalar = type.kind !== 'json' && type.kind !== 'list' && type.kind !== 'value';
    const isNamed = wanted.has(column) || wanted.has(table.columns.get(column) ?? '');
    const inPath = type.kind !== 'boolean' && type.kind !== 'decimal';
    return isScalar && inPath && isNamed && missing === 0 && present > 0 && distinct.size === present;
  });
  const [first] = fitting;
  if (first === undefined) return null;
  const generated = first.type.kind === 'integer' || first.type.kind === 'uuid';
  return { column: first.column, generated, values: first.distinct };
}

/** What a column refers to: it is named after a table, and each of its values is a key there. */
export function referenceOf(
  table: SampleTable,
  { column, present, distinct }: Profile,
  keys: ReadonlyMap<SampleTable, TableKey | null>,
): { readonly role: string; readonly target: SampleTable } | null {
  if (present === 0) return null;
  const stem = /^(.+?)[_-]?(?:id|uuid|code|key|number|no)$/i.exec(column)?.[1] ?? column;
  const role = memberName(stem, 'other');
  const named = [...keys].find(([{ name }]) => memberName(name, 'x') === role);
  const byEnding = named ?? [...keys].find(([{ name }]) => role.toLowerCase().endsWith(name.toLowerCase()));
  const [target, key] = byEnding ?? [];
  if (target === undefined || key == null || (target === table && named !== undefined)) return null;
  return [...distinct].every((value) => key.values.has(value)) ? { role, target } : null;
}
