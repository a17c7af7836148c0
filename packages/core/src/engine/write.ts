import type { Shape } from '../contract/index.js';
import {
  bareObject,
  constraintValue,
  isJsonObject,
  scalarText,
  type Attribute,
  type EntityStorage,
  type Json,
  type Row,
} from '../model/index.js';
import { randomUuid } from '../seeding/index.js';
import type { SlotDraft } from './accept.js';
import type { Change, Draft } from './dataset.js';
import type { ProblemDetail } from './message.js';
import { indexOf, type Serving, type Surroundings } from './service.js';

export type WritePlan =
  | { readonly ok: true; readonly record: Row; readonly changes: readonly Change[] }
  | { readonly ok: false; readonly errors: readonly ProblemDetail[] };

/** Makes a record and whatever fills its required slots; all of it or nothing. */
export function planCreate(
  service: Serving,
  draft: Draft,
  surroundings: Surroundings,
  made: SlotDraft,
  owner: Row | null,
): WritePlan {
  const rows: Row[] = [];
  const errors: ProblemDetail[] = [];
  const make = (part: SlotDraft, ownerRid: number | null, pointer: string): void => {
    const { storage } = part;
    const values = Object.assign(bareObject(), part.values);
    if (storage.owner !== null && ownerRid !== null) values[storage.owner.id] = ownerRid;
    fillMade(service, draft, surroundings, storage, values, errors);
    errors.push(...takenErrors(service, draft, storage, values, null, pointer));
    const rid = draft.nextRid();
    rows.push({ rid, entity: storage.entity.id, values, revision: 1 });
    for (const slot of part.slots)
      make(slot, rid, `${pointer}/${slot.storage.owner?.role ?? slot.storage.entity.name}`);
  };
  make(made, owner?.rid ?? null, '');
  const [record] = rows;
  if (record === undefined || errors.length > 0) return { ok: false, errors };
  return { ok: true, record, changes: rows.map((after) => ({ kind: 'add', after })) };
}

/** Puts new values into a record. Values that stay the same make no change. */
export function planUpdate(
  service: Serving,
  draft: Draft,
  surroundings: Surroundings,
  storage: EntityStorage,
  before: Row,
  accepted: Record<string, Json>,
): WritePlan {
  const errors = takenErrors(service, draft, storage, accepted, before.rid, '');
  if (errors.length > 0) return { ok: false, errors };
  const values = Object.assign(bareObject(), accepted);
  for (const attribute of storage.attributes)
    if (attribute.touched) values[attribute.id] = instant(surroundings);
  const after: Row = { ...before, values, revision: before.revision + 1 };
  return { ok: true, record: after, changes: [{ kind: 'update', before, after }] };
}

/** What the server makes itself: numbers, UUIDs, instants. */
function fillMade(
  service: Serving,
  draft: Draft,
  surroundings: Surroundings,
  storage: EntityStorage,
  values: Record<string, Json>,
  errors: ProblemDetail[],
): void {
  fillValues(storage.attributes, values, (attribute) => {
    if (attribute.touched || attribute.type.kind === 'instant') return instant(surroundings);
    if (attribute.type.kind === 'uuid') return randomUuid(surroundings.random);
    if (attribute.type.kind !== 'integer') return null;
    const number = draft.nextNumber(attribute.id, attribute.type.min ?? 1);
    if (number > (attribute.type.max ?? Number.MAX_SAFE_INTEGER)) {
      errors.push({
        pointer: `/${memberName(indexOf(service).shapes.get(storage.entity.name), attribute.id) ?? attribute.name}`,
        code: 'exhausted',
        message: `${attribute.name} has no number left.`,
      });
    }
    return number;
  });
  fillDefaults(storage.attributes, values);
}

function fillValues(
  attributes: readonly Attribute[],
  values: Record<string, Json>,
  make: (attribute: Attribute) => Json,
): void {
  for (const attribute of attributes) {
    if (!attribute.generated && !attribute.touched) continue;
    values[attribute.id] = make(attribute);
  }
}

/** Read-only attributes are in no body, so their defaults are filled in here. */
function fillDefaults(attributes: readonly Attribute[], values: Record<string, Json>): void {
  for (const { id, defaultValue } of attributes) if (defaultValue !== null) values[id] ??= defaultValue;
}

const instant = (surroundings: Surroundings): string => new Date(surroundings.now()).toISOString();

/** One error for each unique combination that another record has already. */
function takenErrors(
  service: Serving,
  draft: Draft,
  storage: EntityStorage,
  values: Record<string, Json>,
  rid: number | null,
  pointer: string,
): ProblemDetail[] {
  return storage.uniques.flatMap((unique): ProblemDetail[] => {
    const value = constraintValue(unique, values);
    const other = value === null ? undefined : draft.find(storage, unique, value);
    if (other === undefined || other.rid === rid) return [];
    const shape = indexOf(service).shapes.get(storage.entity.name);
    const names = unique.parts.map((part, index) => memberName(shape, part) ?? unique.names[index] ?? part);
    const message = `Another ${storage.entity.name} has this ${names.join(' and ')} already.`;
    return [{ pointer: `${pointer}/${names[0] ?? ''}`, code: 'unique', message }];
  });
}

function memberName(shape: Shape | undefined, id: string): string | undefined {
  return shape?.members.find(({ source }) =>
    source.kind === 'attribute'
      ? source.attribute === id
      : 'relationship' in source && source.relationship === id,
  )?.name;
}

/** A key that cannot stand in a path, or would be mistaken for a path of its own (400). */
export function unusableKey(
  storage: EntityStorage,
  values: Record<string, Json>,
  siblings: ReadonlySet<string>,
): ProblemDetail | null {
  if (storage.singleton || storage.key.generated) return null;
  const key = values[storage.key.id];
  if (key === undefined || key === null || isJsonObject(key)) return null;
  const text = scalarText(key);
  if (text !== '' && text !== '.' && text !== '..' && !siblings.has(text)) return null;
  const message = `Expected a key that can stand in a path; ${JSON.stringify(text)} cannot, or is a path of its own.`;
  return { pointer: `/${storage.key.name}`, code: 'key', message };
}
