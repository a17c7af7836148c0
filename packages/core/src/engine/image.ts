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
import { pointedAt, type RowChange, type RecordView } from './dataset.js';

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

/**
 * What a write did, record by record, as it is kept: rows never change, so only what they point at is looked up at
 * once, and described when somebody looks.
 */
export interface KeptChange extends Pick<RecordChange, 'key' | 'effect'> {
  readonly model: Model;
  readonly storage: EntityStorage;
  readonly before: Pointing | null;
  readonly after: Pointing | null;
}

/** A row with the keys of what it pointed at: of its owner, then of its references. */
interface Pointing {
  readonly row: Row;
  readonly keys: readonly Json[];
}

/** Keeps what a write did. `before` and `after` are the records around it. */
export function keepChanges(
  model: Model,
  before: RecordView,
  after: RecordView,
  changes: readonly RowChange[],
): readonly KeptChange[] {
  const kept: KeptChange[] = [];
  for (const change of changes) {
    const row = change.kind === 'remove' ? change.before : change.after;
    const storage = storageOf(model).byId.get(row.entity);
    if (storage === undefined) continue;
    kept.push({
      model,
      storage,
      key: keyText(model, storage, after, row),
      effect: EFFECTS[change.kind],
      before: change.kind === 'add' ? null : pointing(model, storage, before, change.before),
      after: change.kind === 'remove' ? null : pointing(model, storage, after, change.after),
    });
  }
  return kept;
}

const EFFECTS = { add: 'added', update: 'changed', remove: 'removed' } as const;

const NO_KEYS: readonly Json[] = [];

function pointing(model: Model, { owner, references }: EntityStorage, view: RecordView, row: Row): Pointing {
  if (owner === null && references.length === 0) return { row, keys: NO_KEYS };
  const keys = references.map(({ id }) => targetKey(model, view, row, id));
  if (owner !== null) keys.unshift(targetKey(model, view, row, owner.id));
  return { row, keys };
}

/** What a write did, as people read it. */
export const describeChange = ({ model, storage, key, effect, before, after }: KeptChange): RecordChange => ({
  entity: storage.entity.name,
  key,
  effect,
  before: before === null ? null : imageOf(model, storage, before),
  after: after === null ? null : imageOf(model, storage, after),
});

/** What a write made of one record: its version, and the names of what it changed; `null` where it is about another. */
export function versionOf(
  change: KeptChange,
  rid: number,
): { readonly version: number; readonly changed: readonly string[] } | null {
  const row = change.after?.row;
  if (row?.rid !== rid) return null;
  const { before, after } = describeChange(change);
  const names = Object.keys(after ?? {});
  const changed = names.filter(
    (name) => JSON.stringify(before?.[name] ?? null) !== JSON.stringify(after?.[name] ?? null),
  );
  return { version: row.revision, changed };
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
function imageOf(model: Model, storage: EntityStorage, { row, keys }: Pointing): RecordImage {
  const image = bareObject();
  for (const { id, name, type, writeOnly } of storage.attributes) {
    const value = row.values[id] ?? null;
    image[name] =
      writeOnly && value !== null ? '(set, never returned)' : namedValue(model, type, value, false);
  }
  const { owner, references } = storage;
  const roles = [...(owner === null ? [] : [ownerRoleOf(owner)]), ...references.map(roleOf)];
  for (const [index, role] of roles.entries()) image[role] = keys[index] ?? null;
  return image;
}
