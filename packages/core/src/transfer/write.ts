import {
  bareObject,
  namedValue,
  storageOf,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import type { RecordView } from '../engine/index.js';
import { keyPathOf, pointersOf } from './recordTypes.js';

export interface WritingOptions {
  /** Whether write-only attributes are written too. */
  readonly secrets: boolean;
}

/** The value of a to-one role: the key of its target, or the array of keys that lead to it. */
const pathValue = (path: readonly Json[] | null): Json =>
  path === null ? null : path.length === 1 ? (path[0] ?? null) : path;

/**
 * A record by the names of the model: attributes, then to-one roles with the keys of their targets. What is unset
 * is left out, unless reading would put a default there, or keep a write-only value that is.
 */
export function writeRecord(
  model: Model,
  view: Pick<RecordView, 'get'>,
  storage: EntityStorage,
  row: Row,
  { secrets }: WritingOptions,
): Record<string, Json> {
  const record = bareObject();
  for (const { id, name, type, writeOnly, defaultValue } of storage.attributes) {
    if (writeOnly && !secrets) continue;
    const value = row.values[id] ?? null;
    if (value !== null) record[name] = namedValue(model, type, value, secrets);
    else if (defaultValue !== null || writeOnly) record[name] = null;
  }
  for (const { id, name, target } of pointersOf(model, storage)) {
    const rid = row.values[id];
    const pointed = typeof rid === 'number' ? view.get(rid) : undefined;
    if (pointed !== undefined) record[name] = pathValue(keyPathOf(model, view, target, pointed));
  }
  return record;
}

/** Each kind of record with its records, in the order they were made. */
export function recordsByType(model: Model, rows: Iterable<Row>): ReadonlyMap<EntityStorage, readonly Row[]> {
  const kinds = [...storageOf(model).byId.values()];
  const byKind = new Map(kinds.map((storage) => [storage.entity.id, { storage, rows: [] as Row[] }]));
  for (const row of rows) byKind.get(row.entity)?.rows.push(row);
  return new Map(
    [...byKind.values()].map((kind) => [kind.storage, kind.rows.sort((a, b) => a.rid - b.rid)] as const),
  );
}
