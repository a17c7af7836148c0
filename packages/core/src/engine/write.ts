import { indexContract, noteOn, uniqueSubject, usualWords, type Resource } from '../contract/index.js';
import {
  appendAll,
  bareObject,
  constraintValue,
  isJsonObject,
  scalarText,
  storageOf,
  type Attribute,
  type EntityStorage,
  type Json,
  type Row,
} from '../model/index.js';
import { randomUuid } from '../seeding/index.js';
import type { SlotDraft } from './validateBody.js';
import { memberNamed } from './memberNamed.js';
import { pointers, type RowChange, type Counters } from './dataset.js';
import { Draft } from './draft.js';
import type { ProblemDetail } from './message.js';
import { planRemoval } from './removal.js';
import { type RequestContext, type Runtime } from './service.js';
import type { Update } from './update.js';

export type WritePlan =
  | {
      readonly ok: true;
      readonly record: Row;
      readonly changes: readonly RowChange[];
      /** The numbers given out so far. */
      readonly numbers: Counters;
    }
  | { readonly ok: false; readonly errors: readonly ProblemDetail[] };

/** Makes a record and whatever is made with it; all of it or nothing. */
export function planCreate(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  made: SlotDraft,
  owner: Row | null,
): WritePlan {
  const planning = new Planning(service, draft, runtime);
  const record = planning.create(made, owner?.rid ?? null);
  return planning.plan(record);
}

/** Puts new values into a record, and brings what stands inside it into the form that was sent. */
export function planUpdate(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  before: Row,
  update: Pick<Update, 'values' | 'children'>,
): WritePlan {
  const planning = new Planning(service, draft, runtime);
  const record = planning.update(before, update, '');
  return planning.plan(record);
}

/** A write while it is put together, on a draft of its own: what it changes is checked as a whole. */
class Planning {
  private readonly inner: Draft;
  private readonly errors: ProblemDetail[] = [];
  /** Where in the body each record stands that is written. */
  private readonly written = new Map<number, string>();

  constructor(
    private readonly service: RequestContext,
    draft: Draft,
    private readonly runtime: Runtime,
  ) {
    this.inner = new Draft(draft);
  }

  create({ storage, values: given, slots, pointer }: SlotDraft, ownerRid: number | null): Row {
    const values = Object.assign(bareObject(), given);
    if (storage.owner !== null && ownerRid !== null) values[storage.owner.id] = ownerRid;
    fillMade(this.service, this.inner, this.runtime, storage, values, this.errors);
    const row: Row = { rid: this.inner.nextRid(), entity: storage.entity.id, values, revision: 1 };
    this.inner.apply([{ kind: 'add', after: row }]);
    this.written.set(row.rid, pointer);
    for (const slot of slots) this.create(slot, row.rid);
    return row;
  }

  update(
    before: Row,
    { values: given, children }: Pick<Update, 'values' | 'children'>,
    pointer: string,
  ): Row {
    const storage = this.storageOf(before);
    const values = Object.assign(bareObject(), given);
    for (const attribute of storage.attributes)
      if (attribute.touched) values[attribute.id] = instant(this.runtime);
    const current = this.inner.get(before.rid) ?? before;
    const after: Row = { ...before, values, revision: current.revision + 1 };
    this.inner.apply([{ kind: 'update', before: current, after }]);
    this.written.set(after.rid, pointer);
    // What stays may let go of what goes, so it is brought up to date first.
    const entries = children.flatMap((list) => list.entries);
    for (const entry of entries)
      if (entry.kind === 'update') this.update(entry.before, entry.update, entry.pointer);
    for (const { removed, at } of children) for (const row of removed) this.remove(row, at);
    for (const entry of entries) if (entry.kind === 'create') this.create(entry.made, after.rid);
    return after;
  }

  private remove(row: Row, pointer: string): void {
    if (this.inner.get(row.rid) === undefined) return;
    const removal = planRemoval(this.service.model, this.inner, row);
    if (removal.ok) {
      this.inner.apply(removal.changes);
      return;
    }
    const storage = this.storageOf(row);
    const what = `${storage.entity.name} ${scalarText(row.values[storage.key.id])}`.trim();
    const roles = [...new Set(removal.blocking.map(({ role }) => role))].join(', ');
    this.errors.push({
      pointer,
      code: 'restricted',
      message: `${what} is left out and would go, but is still needed by ${roles}.`,
    });
  }

  /** What came of it: all changes, or why there are none. */
  plan(record: Row): WritePlan {
    for (const [rid, pointer] of this.written) {
      const row = this.inner.get(rid);
      if (row === undefined) continue;
      appendAll(this.errors, this.dangling(row, pointer));
      appendAll(
        this.errors,
        takenErrors(this.service, this.inner, this.storageOf(row), row.values, rid, pointer),
      );
    }
    if (this.errors.length > 0) return { ok: false, errors: this.errors };
    const { changes, numbers } = this.inner;
    return { ok: true, record: this.inner.get(record.rid) ?? record, changes, numbers };
  }

  /** What a record points at may have gone with something that was left out. */
  private dangling(row: Row, pointer: string): ProblemDetail[] {
    const lost = pointers(this.storageOf(row), row).find(
      ([, target]) => this.inner.get(target) === undefined,
    );
    if (lost === undefined) return [];
    const message = 'It refers to something that is left out and would go.';
    return [{ pointer, code: 'reference', message }];
  }

  private storageOf(row: Row): EntityStorage {
    const storage = storageOf(this.service.model).byId.get(row.entity);
    if (storage === undefined) throw new Error(`The dataset has no entity ${row.entity}.`);
    return storage;
  }
}

/** What the server makes itself: numbers, UUIDs, instants. */
function fillMade(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  storage: EntityStorage,
  values: Record<string, Json>,
  errors: ProblemDetail[],
): void {
  fillValues(storage.attributes, values, (attribute) => {
    if (attribute.touched || attribute.type.kind === 'instant') return instant(runtime);
    if (attribute.type.kind === 'uuid') return randomUuid(runtime.random);
    if (attribute.type.kind !== 'integer') return null;
    const number = draft.nextNumber(attribute.id, attribute.type.min ?? 1);
    if (number > (attribute.type.max ?? Number.MAX_SAFE_INTEGER)) {
      const name = memberNamed(service, storage, attribute.id, attribute.name);
      errors.push({ pointer: `/${name}`, code: 'exhausted', message: `${name} has no number left.` });
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

const instant = (runtime: Runtime): string => new Date(runtime.now()).toISOString();

/** One error for each unique combination that another record has already. */
function takenErrors(
  service: RequestContext,
  draft: Draft,
  storage: EntityStorage,
  values: Record<string, Json>,
  rid: number | null,
  pointer: string,
): ProblemDetail[] {
  return storage.uniques.flatMap((unique): ProblemDetail[] => {
    const value = constraintValue(unique, values);
    const other = value === null ? undefined : draft.findOther(storage, unique, value, rid);
    if (other === undefined) return [];
    if (unique === storage.singleConstraint)
      return [{ pointer, code: 'unique', message: `There is one ${storage.entity.name}, and no other.` }];
    const names = unique.parts.map((part, index) =>
      memberNamed(service, storage, part, unique.names[index] ?? part),
    );
    const subject = uniqueSubject(unique.id);
    const said =
      noteOn(service.contract, 'constraint', subject)?.message ?? usualWords(service.model).get(subject);
    const message = said ?? `Another ${storage.entity.name} has this ${names.join(' and ')} already.`;
    return [{ pointer: `${pointer}/${names[0] ?? ''}`, code: 'unique', message }];
  });
}

/** A key that cannot stand in a path, or would be mistaken for a path of its own (400). */
export function unusableKey(
  service: RequestContext,
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
  const name = memberNamed(service, storage, storage.key.id, storage.key.name);
  return { pointer: `/${name}`, code: 'key', message };
}

/** Literal paths beside the items of a collection: a key of that text could never be reached. */
export function siblingLiterals(service: RequestContext, resource: Resource): ReadonlySet<string> {
  const siblings = indexContract(service.contract).childrenOf.get(resource.id) ?? [];
  return new Set(
    siblings.flatMap(({ segments }) => {
      const last = segments.at(-1);
      return last?.kind === 'literal' ? [last.text] : [];
    }),
  );
}
