import {
  bareObject,
  eachInSteps,
  pointingOf,
  storageOf,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';

/** What records hold and the new model has no place for. */
export interface DataLoss {
  /** The identity of an entity, or of what its records hold. */
  readonly id: string;
  /** The identity of the entity. */
  readonly entity: string;
  /** What goes: `the entity Sailing`, `Route.length`. */
  readonly what: string;
  readonly records: readonly Row[];
}

/** What a new model has no place for, of each record. */
export function* dataLossIn(before: Model, after: Model, rows: Iterable<Row>): Steps<readonly DataLoss[]> {
  const losses = new Map<string, DataLoss & { readonly records: Row[] }>();
  const lose = (id: string, what: string, row: Row): void => {
    const known = losses.get(id);
    if (known === undefined) losses.set(id, { id, entity: row.entity, what, records: [row] });
    else known.records.push(row);
  };
  yield* eachInSteps('comparing', rows, (row) => {
    const old = storageOf(before).byId.get(row.entity);
    const now = storageOf(after).byId.get(row.entity);
    if (old === undefined) return;
    if (now === undefined) {
      lose(row.entity, `the entity ${old.entity.name}`, row);
      return;
    }
    const kept = placesOf(now);
    for (const [id, name] of placesOf(old)) {
      if (row.values[id] !== undefined && !kept.has(id)) lose(id, `${old.entity.name}.${name}`, row);
    }
  });
  return [...losses.values()];
}

/** Everything a record of the entity can hold: identity → name. */
function placesOf(storage: EntityStorage): ReadonlyMap<string, string> {
  return new Map([
    ...storage.attributes.map((attribute) => [attribute.id, attribute.name] as const),
    ...pointingOf(storage).map(
      (relationship) => [relationship.id, relationship.role ?? relationship.to] as const,
    ),
  ]);
}

/** A record with the defaults of what it has no value of, as any write leaves it; its revision stays. */
export function withDefaults(model: Model, row: Row): Row {
  const attributes = storageOf(model).byId.get(row.entity)?.attributes ?? [];
  const missing = attributes.filter(
    ({ id, defaultValue }) => defaultValue !== null && (row.values[id] ?? null) === null,
  );
  if (missing.length === 0) return row;
  const values: Record<string, Json> = Object.assign(bareObject(), row.values);
  for (const { id, defaultValue } of missing) values[id] = defaultValue;
  return { ...row, values };
}
