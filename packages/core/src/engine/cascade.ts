import { entryOf, onRemoveOf, pointingOf } from '../model/index.js';
import type { KeptChange } from './image.js';
import { joinedBy, type RemovalNode } from './removal.js';

interface Growing {
  readonly type: string;
  readonly by: RemovalNode['by'];
  records: number;
  readonly below: Map<string, Growing>;
}

/**
 * What a write removed, counted, each below what took it along; nothing where it removed one record at most. What is
 * removed by itself stands at the top.
 */
export function cascadeOf(changes: readonly KeptChange[]): readonly RemovalNode[] {
  const removed = changes.filter(({ effect }) => effect === 'removed');
  if (removed.length < 2) return [];
  const top = new Map<string, Growing>();
  const places = new Map<number, Growing>();
  // What was found last was removed first.
  for (const { storage, before } of removed.reverse()) {
    const row = before?.row;
    if (row === undefined) continue;
    const above = pointingOf(storage).flatMap((relationship) => {
      const target = row.values[relationship.id];
      const place = typeof target === 'number' ? places.get(target) : undefined;
      return place === undefined || onRemoveOf(relationship) !== 'cascade' ? [] : [{ place, relationship }];
    })[0];
    const by = above === undefined ? null : joinedBy(above.relationship);
    const type = storage.entity.name;
    const place = entryOf(above?.place.below ?? top, `${type} ${by?.role ?? ''}`, () => ({
      type,
      by,
      records: 0,
      below: new Map<string, Growing>(),
    }));
    place.records++;
    places.set(row.rid, place);
  }
  return grown(top);
}

const grown = (nodes: ReadonlyMap<string, Growing>): readonly RemovalNode[] =>
  [...nodes.values()].map(({ type, by, records, below }) => ({
    type,
    by,
    effect: 'removed',
    records,
    below: grown(below),
  }));
