import {
  bareObject,
  namedValue,
  ownerRoleOf,
  roleOf,
  storageOf,
  type EntityStorage,
  type Json,
  type Model,
  type Row,
} from '../model/index.js';
import { pointedAt, type Change, type RecordView } from './dataset.js';

/** One record as people read it: by the names of the model, references as the keys they lead to. */
export interface RecordImage {
  readonly [name: string]: Json;
}

/** One record before and after a write. */
export interface RecordChange {
  readonly entity: string;
  /** The key of the record; its owner's where it has none of its own. */
  readonly key: Json;
  readonly effect: 'added' | 'changed' | 'removed';
  readonly before: RecordImage | null;
  readonly after: RecordImage | null;
}

/** What a write did, record by record. `before` and `after` are the records around it. */
export function describeRecordChanges(
  model: Model,
  before: RecordView,
  after: RecordView,
  changes: readonly Change[],
): readonly RecordChange[] {
  return changes.flatMap((change): RecordChange[] => {
    const row = change.kind === 'remove' ? change.before : change.after;
    const storage = storageOf(model).byId.get(row.entity);
    if (storage === undefined) return [];
    const shared = { entity: storage.entity.name, key: keyText(model, storage, after, row) };
    switch (change.kind) {
      case 'add':
        return [
          { ...shared, effect: 'added', before: null, after: imageOf(model, storage, after, change.after) },
        ];
      case 'update': {
        const [old, now] = [
          imageOf(model, storage, before, change.before),
          imageOf(model, storage, after, change.after),
        ];
        return [{ ...shared, effect: 'changed', before: old, after: now }];
      }
      case 'remove':
        return [
          {
            ...shared,
            effect: 'removed',
            before: imageOf(model, storage, before, change.before),
            after: null,
          },
        ];
    }
  });
}

function keyText(model: Model, storage: EntityStorage, view: RecordView, row: Row): Json {
  if (!storage.singleton) return row.values[storage.key.id] ?? null;
  return storage.owner === null ? null : targetKey(model, view, row, storage.owner.id);
}

function targetKey(model: Model, view: RecordView, row: Row, relationship: string): Json {
  const target = pointedAt(view, row, relationship);
  const storage = target === null ? undefined : storageOf(model).byId.get(target.entity);
  return target === null || storage === undefined ? null : keyText(model, storage, view, target);
}

/** Every attribute and to-one role with its value; what is write-only is told to be set, not shown. */
function imageOf(model: Model, storage: EntityStorage, view: RecordView, row: Row): RecordImage {
  const image = bareObject();
  for (const { id, name, type, writeOnly } of storage.attributes) {
    const value = row.values[id] ?? null;
    image[name] =
      writeOnly && value !== null ? '(set, never returned)' : namedValue(model, type, value, false);
  }
  const { owner } = storage;
  if (owner !== null) image[ownerRoleOf(owner)] = targetKey(model, view, row, owner.id);
  for (const reference of storage.references)
    image[roleOf(reference)] = targetKey(model, view, row, reference.id);
  return image;
}
