import type { Member, Shape } from '../contract/index.js';
import {
  bareObject,
  isJsonObject,
  sameJson,
  scalarText,
  type Attribute,
  type Json,
  type Row,
} from '../model/index.js';
import {
  acceptCreate,
  acceptMember,
  expectObject,
  pointerTo,
  refuseUnknown,
  report,
  sourceId,
  type BodyValidation,
  type SlotDraft,
} from './validateBody.js';
import { normalKey } from './locate.js';
import { refusal, refusalWording, transitionOf } from './lifeCycle.js';
import { memberValue } from './represent.js';
import { indexOf, shapeNamed, storageNamed, storages, type Service } from './service.js';

export interface Update {
  readonly values: Record<string, Json>;
  /** The body names another key than the path does. */
  readonly keyMismatch: boolean;
  /** Why no transition leads where the body wants; `null` where one does, or none is wanted. */
  readonly notMoved: string | null;
  /** What becomes of what stands inside the record. */
  readonly children: readonly ChildrenUpdate[];
}

/** One list of children, or one slot, as a body wants it. */
export interface ChildrenUpdate {
  readonly entries: readonly ChildUpdate[];
  readonly removed: readonly Row[];
  /** Where it stands in the body (RFC 6901). */
  readonly at: string;
}

export type ChildUpdate =
  | { readonly kind: 'create'; readonly made: SlotDraft }
  | { readonly kind: 'update'; readonly before: Row; readonly update: Update; readonly pointer: string };

/**
 * Reads the body of a PUT against the record it replaces. Members that are returned but not accepted may be
 * sent back with the value they have; what is never returned keeps its value where it is absent.
 */
export function acceptReplace(
  validation: BodyValidation,
  shape: Shape,
  body: Json,
  current: Row,
  pointer = '',
): Update {
  return acceptUpdate(
    validation,
    shape,
    body,
    current,
    (member, members) => {
      const given = members[member.name] ?? null;
      const keeps = given === null && isNeverShown(validation.service, member, current);
      return keeps ? { kept: true } : { kept: false, given };
    },
    pointer,
  );
}

/** Reads a merge patch (RFC 7396): absent keeps, null unsets, objects merge; the whole is validated. */
export function acceptChange(validation: BodyValidation, shape: Shape, body: Json, current: Row): Update {
  return acceptUpdate(validation, shape, body, current, (member, members) => {
    if (!(member.name in members)) return { kept: true };
    const before = memberValue(validation.service, validation.view, member, current) ?? null;
    return { kept: false, given: mergePatch(before, members[member.name] ?? null) };
  });
}

/** Stands where a value is that a patch may not see. No JSON text gives this object. */
export const HIDDEN: Json = Object.freeze(bareObject());

/**
 * Takes the members that a JSON Patch left: what it removed is unset, what it could not see and did not touch
 * keeps its value.
 */
export function acceptPatched(
  validation: BodyValidation,
  shape: Shape,
  patched: Json,
  current: Row,
  hidden: ReadonlySet<string>,
): Update {
  const body = isJsonObject(patched) ? Object.assign(bareObject(), patched) : patched;
  if (isJsonObject(body))
    for (const { name, mode } of shape.members) if (!(name in body) && mode !== 'ignored') body[name] = null;
  return acceptUpdate(validation, shape, body, current, (member, members) => {
    const given = members[member.name] ?? null;
    return hidden.has(member.name) && given === HIDDEN ? { kept: true } : { kept: false, given };
  });
}

type Given = { readonly kept: true } | { readonly kept: false; readonly given: Json };

function acceptUpdate(
  validation: BodyValidation,
  shape: Shape,
  body: Json,
  current: Row,
  read: (member: Member, members: { readonly [name: string]: Json }) => Given,
  pointer = '',
): Update {
  const values = Object.assign(bareObject(), current.values);
  const children: ChildrenUpdate[] = [];
  if (!expectObject(validation, body, pointer))
    return { values, keyMismatch: false, notMoved: null, children };
  refuseUnknown(validation, shape, body, pointer);
  let keyMismatch = false;
  let notMoved: string | null = null;
  for (const member of shape.members) {
    switch (member.mode) {
      case 'accepted': {
        const found = read(member, body);
        if (found.kept) break;
        if (member.source.kind === 'inline') {
          children.push(
            acceptChildren(validation, member, found.given, current, pointerTo(pointer, member.name)),
          );
          break;
        }
        const id = sourceId(member);
        if (id !== null) delete values[id];
        acceptMember(validation, asRequired(member), found.given, pointerTo(pointer, member.name), values);
        break;
      }
      case 'moved':
        notMoved ??= move(validation, member, body, current, values, pointer);
        break;
      case 'must-equal':
        if (!mustEqual(validation, member, body, current, pointer))
          keyMismatch ||= isKey(validation, member, current);
        break;
      case 'ignored':
      case 'returned':
        break;
    }
  }
  return { values, keyMismatch, notMoved, children };
}

/**
 * Reads what is to stand inside a record: what has a known id is replaced, what has none is made, what is left
 * out goes.
 */
function acceptChildren(
  validation: BodyValidation,
  member: Member,
  given: Json,
  owner: Row,
  at: string,
): ChildrenUpdate {
  const nothing = { entries: [], removed: [], at };
  if (member.source.kind !== 'inline') return nothing;
  const { entity, relationship, isMany, takesNew } = member.source;
  const { service, view } = validation;
  const storage = storageNamed(service, entity);
  const there = view.pointingAt(storage, relationship, owner.rid);
  if (isMany && !Array.isArray(given)) {
    report(validation, at, 'type', 'Expected an array of all of them; what is left out is removed.');
    return nothing;
  }
  if (given === null && !member.nullable) {
    report(validation, at, 'required', `Expected an object: ${member.name} is required.`);
    return nothing;
  }
  const items = isMany ? (given as readonly Json[]) : given === null ? [] : [given];
  const left = new Map(there.map((row) => [row.rid, row]));
  const entries = items.flatMap((item, index) => {
    const pointer = isMany ? pointerTo(at, index) : at;
    const before = isMany ? knownChild(validation, entity, there, item, pointer) : (there[0] ?? null);
    if (before === 'unknown') return [];
    if (before !== null && !left.delete(before.rid)) {
      report(
        validation,
        pointer,
        'duplicate',
        `${entity} ${scalarText(before.values[storage.key.id])} stands twice.`,
      );
      return [];
    }
    if (before === null && !takesNew) {
      report(
        validation,
        pointer,
        'closed',
        `No new ${entity} can be made here: not all it needs is accepted.`,
      );
      return [];
    }
    return [childUpdate(validation, entity, before, item, pointer)];
  });
  return { entries, removed: [...left.values()], at };
}

/** The child that an item is about, by its key; `null` where it is a new one. */
function knownChild(
  validation: BodyValidation,
  entity: string,
  there: readonly Row[],
  item: Json,
  pointer: string,
): Row | 'unknown' | null {
  const { key } = storageNamed(validation.service, entity);
  const member = shapeNamed(validation.service, `${entity}.replace`).members.find(
    ({ source }) => source.kind === 'attribute' && source.attribute === key.id,
  );
  const given = member === undefined || !isJsonObject(item) ? null : (item[member.name] ?? null);
  if (member === undefined || given === null) return null;
  const wanted = normalKey(key.type.kind, given);
  const found = there.find(({ values }) => sameJson(values[key.id], wanted));
  if (found !== undefined || !key.generated) return found ?? null;
  const message = `Expected the ${member.name} of a ${entity} that stands here, or none for a new one.`;
  report(validation, pointerTo(pointer, member.name), 'reference', message);
  return 'unknown';
}

function childUpdate(
  validation: BodyValidation,
  entity: string,
  before: Row | null,
  item: Json,
  pointer: string,
): ChildUpdate {
  const { service } = validation;
  if (before === null) {
    const shape = shapeNamed(service, `${entity}.create`);
    const made = {
      storage: storageNamed(service, entity),
      ...acceptCreate(validation, shape, item, pointer),
    };
    return { kind: 'create', made };
  }
  const update = acceptReplace(validation, shapeNamed(service, `${entity}.replace`), item, before, pointer);
  if (update.notMoved !== null) report(validation, pointer, 'state', update.notMoved);
  return { kind: 'update', before, update, pointer };
}

/** Moves an attribute along its life cycle; why it cannot, where no transition leads there now. */
function move(
  validation: BodyValidation,
  member: Member,
  body: { readonly [name: string]: Json },
  current: Row,
  values: Record<string, Json>,
  pointer: string,
): string | null {
  const id = sourceId(member);
  if (id === null || !(member.name in body)) return null;
  const wanted = body[member.name] ?? null;
  if (sameJson(wanted, current.values[id] ?? null)) return null;
  const count = validation.errors.length;
  acceptMember(validation, { ...member, required: true }, wanted, pointerTo(pointer, member.name), values);
  if (validation.errors.length > count) return null;
  const found = (member.transitions ?? []).flatMap(
    (transition) => transitionOf(validation.service, current, transition) ?? [],
  );
  const leading = found.filter(({ transition }) => transition.to === wanted);
  const refusals = leading.map((way) =>
    refusal(
      way,
      current,
      validation.service.now,
      refusalWording(validation.service, way, () => member.name),
    ),
  );
  if (refusals.includes(null)) return null;
  return refusals[0] ?? `No transition leads ${member.name} to ${JSON.stringify(wanted)}.`;
}

/** In a patch nothing is required, but what is required cannot be unset. */
const asRequired = (member: Member): Member =>
  member.required || member.nullable ? member : { ...member, required: true };

function attributeOf(validation: BodyValidation, member: Member, current: Row): Attribute | undefined {
  const { source } = member;
  if (source.kind !== 'attribute') return undefined;
  const storage = storages(validation.service).byId.get(current.entity);
  return storage?.attributes.find((attribute) => attribute.id === source.attribute);
}

/** What a read does not return a client cannot send back, so it keeps its value where it is left out. */
export function isNeverShown(service: Service, member: Member, current: Row): boolean {
  const entity = storages(service).byId.get(current.entity)?.entity.name ?? '';
  const id = sourceId(member);
  return !indexOf(service)
    .shapes.get(entity)
    ?.members.some((shown) => sourceId(shown) === id);
}

const isKey = (validation: BodyValidation, member: Member, current: Row): boolean => {
  const attribute = attributeOf(validation, member, current);
  return attribute !== undefined && attribute === storages(validation.service).byId.get(current.entity)?.key;
};

function mustEqual(
  validation: BodyValidation,
  member: Member,
  body: { readonly [name: string]: Json },
  current: Row,
  pointer: string,
): boolean {
  if (!(member.name in body)) return true;
  const now = memberValue(validation.service, validation.view, member, current) ?? null;
  if (sameJson(body[member.name], now)) return true;
  const message = `${member.name} cannot be changed; leave it out or send the value it has, ${JSON.stringify(now)}.`;
  report(validation, pointerTo(pointer, member.name), 'fixed', message);
  return false;
}

/** RFC 7396 §2. */
export function mergePatch(target: Json, patch: Json): Json {
  if (!isJsonObject(patch)) return patch;
  const result = bareObject();
  if (isJsonObject(target)) for (const name of Object.keys(target)) result[name] = target[name] ?? null;
  for (const name of Object.keys(patch)) {
    const value = patch[name] ?? null;
    if (value === null) delete result[name];
    else result[name] = mergePatch(result[name] ?? null, value);
  }
  return result;
}
