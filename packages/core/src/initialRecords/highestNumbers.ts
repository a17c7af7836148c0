import { storageOf, type Model, type Row } from '../model/index.js';

/** The highest number of each counted attribute, by its identity: those that are given next go on above it. */
export function highestNumbers(model: Model, rows: Iterable<Row>): Readonly<Record<string, number>> {
  const highest = new Map<string, number>();
  for (const { entity, values } of rows)
    for (const { id, type, generated } of storageOf(model).byId.get(entity)?.attributes ?? []) {
      const value = values[id];
      if (generated && type.kind === 'integer' && typeof value === 'number')
        highest.set(id, Math.max(highest.get(id) ?? 0, value));
    }
  return Object.fromEntries(highest);
}
