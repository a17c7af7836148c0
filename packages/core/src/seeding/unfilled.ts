import type { EntityStorage, Row } from '../model/index.js';

type Seeded = Pick<Row, 'rid' | 'entity' | 'values'>;

/**
 * The records that cannot stay, because something fills no slot of theirs that is never empty, or because they need
 * one that cannot stay. By their numbers.
 */
export function unfilled(
  rows: readonly Seeded[],
  storages: ReadonlyMap<string, EntityStorage>,
): ReadonlySet<number> {
  const gone = new Set<number>();
  for (let before = -1; before < gone.size;) {
    before = gone.size;
    const filled = slotsFilled(rows, storages, gone);
    for (const row of rows) {
      const storage = storages.get(row.entity);
      if (storage === undefined || gone.has(row.rid)) continue;
      const isEmpty = storage.slots.some(({ id }) => filled.get(id)?.has(row.rid) !== true);
      const needed = [
        ...(storage.owner === null ? [] : [storage.owner.id]),
        ...storage.references.filter(({ cardinality }) => cardinality === 'one').map(({ id }) => id),
      ];
      if (isEmpty || needed.some((id) => gone.has(Number(row.values[id] ?? 0)))) gone.add(row.rid);
    }
  }
  return gone;
}

/** The owners whose slots are filled, by the relationship. */
function slotsFilled(
  rows: readonly Seeded[],
  storages: ReadonlyMap<string, EntityStorage>,
  gone: ReadonlySet<number>,
): ReadonlyMap<string, ReadonlySet<number>> {
  const filled = new Map<string, Set<number>>();
  for (const { rid, entity, values } of rows) {
    const owner = storages.get(entity)?.owner;
    const above = owner == null ? undefined : values[owner.id];
    if (owner == null || owner.cardinality === 'many' || typeof above !== 'number' || gone.has(rid)) continue;
    const owners = filled.get(owner.id) ?? new Set<number>();
    filled.set(owner.id, owners.add(above));
  }
  return filled;
}
