import { asMemberName } from '../build.js';
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
  const own = asMemberName(table.name, 'record');
  const wanted = new Set([...KEY_NAMES, `${own}Id`, `${own}Code`, `${own}Number`, `${own}Key`]);
  const fitting = profiles.filter(({ column, type, missing, present, distinct }) => {
    const isScalar = type.kind !== 'json' && type.kind !== 'list' && type.kind !== 'value';
    const isNamed = wanted.has(column) || wanted.has(table.columns.get(column) ?? '');
    const inPath = type.kind !== 'boolean' && type.kind !== 'decimal';
    return (
      isScalar &&
      inPath &&
      isNamed &&
      missing === 0 &&
      present > 0 &&
      (distinct.size === present || comesWithOneRecord(table, column))
    );
  });
  const [first] = fitting;
  if (first === undefined) return null;
  const generated = first.type.kind === 'integer' || first.type.kind === 'uuid';
  return { column: first.column, generated, values: first.distinct };
}

/** Records inside others may come again: each value of a key with the same record every time. */
function comesWithOneRecord({ within, rows }: SampleTable, column: string): boolean {
  if (within === null || within.many) return false;
  const records = new Map<string, string>();
  return rows.every(({ values }) => {
    const key = JSON.stringify(values.get(column));
    const record = JSON.stringify([...values]);
    const known = records.get(key);
    records.set(key, record);
    return known === undefined || known === record;
  });
}

/** What a column refers to: it is named after a table, and each of its values is a key there. */
export function referenceOf(
  table: SampleTable,
  { column, type, present, distinct }: Profile,
  keys: Keys,
): { readonly role: string; readonly target: SampleTable } | null {
  if (present === 0) return null;
  const ending = /^(.+?)[_-]?(id|uuid|code|key|number|no)$/i.exec(column);
  const role = asMemberName(ending?.[1] ?? column, 'other');
  const target =
    tableNamed(keys, (name) => name === role) ??
    tableNamed(keys, (name) => role.toLowerCase().endsWith(name.toLowerCase())) ??
    (ending === null || type.kind === 'integer' ? undefined : onlyTableWith(keys, distinct));
  const key = target === undefined ? null : (keys.get(target) ?? null);
  if (target === undefined || key === null || (target === table && key.column === column)) return null;
  return [...distinct].every((value) => key.values.has(value)) ? { role, target } : null;
}

type Keys = ReadonlyMap<SampleTable, TableKey | null>;

const tableNamed = (keys: Keys, fits: (name: string) => boolean): SampleTable | undefined =>
  [...keys.keys()].find(({ name }) => fits(asMemberName(name, 'x')));

/** The one table among whose keys all values are. Small whole numbers are in every table, so they say nothing. */
function onlyTableWith(keys: Keys, values: ReadonlySet<string>): SampleTable | undefined {
  const fitting = [...keys].filter(
    ([, key]) => key !== null && [...values].every((value) => key.values.has(value)),
  );
  return fitting.length === 1 ? fitting[0]?.[0] : undefined;
}
