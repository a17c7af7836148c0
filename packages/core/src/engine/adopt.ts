import {
  bareObject,
  storageOf,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import type { Change } from './dataset.js';
import { findViolations } from './invariants.js';

export type Adoption =
  /** The records satisfy the new model once these changes are made to them. */
  | { readonly ok: true; readonly changes: readonly Change[] }
  /** What stands against it, each in a sentence; nothing is changed. */
  | { readonly ok: false; readonly obstacles: readonly string[] };

const OBSTACLES_SHOWN = 20;

/**
 * Whether the records of a running mock can go on under an edited model. Additions, widenings and renames
 * can; what would lose a value, or what a record contradicts, cannot. Required attributes that are new get
 * their default.
 */
export function adopt(before: Model, after: Model, rows: Iterable<Row>): Adoption {
  const all = [...rows];
  const lost = findLosses(before, after, all);
  if (lost.length > 0) return { ok: false, obstacles: lost.slice(0, OBSTACLES_SHOWN) };
  const changes: Change[] = [];
  const filled = all.map((row) => {
    const filledRow = withDefaults(after, row);
    if (filledRow !== row) changes.push({ kind: 'update', before: row, after: filledRow });
    return filledRow;
  });
  const violations = findViolations(after, filled);
  if (violations.length === 0) return { ok: true, changes };
  const obstacles = violations
    .slice(0, OBSTACLES_SHOWN)
    .map(({ entity, rid, message }) => `${entity}, record ${rid}: ${message}`);
  return { ok: false, obstacles };
}

/** What records hold and the new model has no place for. */
function findLosses(before: Model, after: Model, rows: readonly Row[]): string[] {
  const holders = new Map<string, { readonly what: string; count: number }>();
  const lose = (id: string, what: string): void => {
    const known = holders.get(id);
    if (known === undefined) holders.set(id, { what, count: 1 });
    else known.count++;
  };
  for (const row of rows) {
    const old = storageOf(before).byId.get(row.entity);
    const now = storageOf(after).byId.get(row.entity);
    if (old === undefined) continue;
    if (now === undefined) {
      lose(row.entity, `the entity ${old.entity.name}`);
      continue;
    }
    const kept = placesOf(now);
    for (const [id, name] of placesOf(old)) {
      if (row.values[id] !== undefined && !kept.has(id)) lose(id, `${old.entity.name}.${name}`);
    }
  }
  return [...holders.values()].map(
    ({ what, count }) => `Removing ${what} would lose what ${count} records hold.`,
  );
}

/** Everything a record of the entity can hold: identity → name. */
function placesOf({ attributes, owner, references }: EntityStorage): ReadonlyMap<string, string> {
  const relationships = owner === null ? references : [owner, ...references];
  return new Map([
    ...attributes.map((attribute) => [attribute.id, attribute.name] as const),
    ...relationships.map((relationship) => [relationship.id, relationship.role ?? relationship.to] as const),
  ]);
}

/** A record with the defaults of required attributes that it has no value of. */
export function withDefaults(model: Model, row: Row): Row {
  const attributes = storageOf(model).byId.get(row.entity)?.attributes ?? [];
  const missing = attributes.filter(
    ({ id, required, defaultValue }) => required && defaultValue !== null && row.values[id] === undefined,
  );
  if (missing.length === 0) return row;
  const values: Record<string, Json> = Object.assign(bareObject(), row.values);
  for (const { id, defaultValue } of missing) values[id] = defaultValue;
  return { ...row, values, revision: row.revision + 1 };
}
