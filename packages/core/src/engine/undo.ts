import {
  bareObject,
  mapInSteps,
  storageOf,
  type Json,
  type Model,
  type Row,
  type Steps,
} from '../model/index.js';
import { pointers, type RowChange, type RecordView } from './dataset.js';

/**
 * The changes that take others back, as a write of their own: revisions go on, they are never used again.
 * `view`: the records as those changes left them.
 */
export function inverseOf(changes: readonly RowChange[], view: RecordView): readonly RowChange[] {
  const now = new Map<number, Row | null>();
  const rowNow = (rid: number): Row | null => {
    const known = now.get(rid);
    return known === undefined ? (view.get(rid) ?? null) : known;
  };
  return [...changes].reverse().flatMap((change): RowChange[] => {
    switch (change.kind) {
      case 'add': {
        const before = rowNow(change.after.rid);
        now.set(change.after.rid, null);
        return before === null ? [] : [{ kind: 'remove', before }];
      }
      case 'update': {
        const before = rowNow(change.after.rid);
        if (before === null) return [];
        const after: Row = { ...change.before, revision: before.revision + 1 };
        now.set(after.rid, after);
        return [{ kind: 'update', before, after }];
      }
      case 'remove': {
        const after: Row = { ...change.before, revision: change.before.revision + 1 };
        now.set(after.rid, after);
        return [{ kind: 'add', after }];
      }
    }
  });
}

/**
 * The same records under numbers that none had before, beginning behind `last`: what was known of the old ones,
 * such as their entity tags, holds for none of the new.
 */
export function* renumbered(
  model: Model,
  rows: readonly Row[],
  last: number,
): Steps<{ readonly rows: readonly Row[]; readonly last: number }> {
  const numbers = new Map(rows.map(({ rid }, index) => [rid, last + index + 1]));
  const renewed = yield* mapInSteps('comparing', rows, (row): Row => {
    const storage = storageOf(model).byId.get(row.entity);
    const values: Record<string, Json> = Object.assign(bareObject(), row.values);
    for (const [relationship, target] of storage === undefined ? [] : pointers(storage, row))
      values[relationship] = numbers.get(target) ?? target;
    return { ...row, values, rid: numbers.get(row.rid) ?? row.rid, revision: 1 };
  });
  return { rows: renewed, last: last + rows.length };
}
