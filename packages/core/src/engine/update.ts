import type { Member, Shape } from '../contract/index.js';
import { bareObject, isJsonObject, sameJson, type Attribute, type Json, type Row } from '../model/index.js';
import {
  acceptMember,
  expectObject,
  pointerTo,
  refuseUnknown,
  report,
  sourceId,
  type Accepting,
} from './accept.js';
import { refusal, transitionOf } from './lifeCycle.js';
import { memberValue } from './represent.js';
import { indexOf, storages, type Service } from './service.js';

export interface Update {
  readonly values: Record<string, Json>;
  /** The body names another key than the path does. */
  readonly keyMismatch: boolean;
  /** Why no transition leads where the body wants; `null` where one does, or none is wanted. */
  readonly notMoved: string | null;
}

/**
 * Reads the body of a PUT against the record it replaces. Members that are returned but not accepted may be
 * sent back with the value they have; what is never returned keeps its value where it is absent.
 */
export function acceptReplace(accepting: Accepting, shape: Shape, body: Json, current: Row): Update {
  return acceptUpdate(accepting, shape, body, current, (member, members) => {
    const given = members[member.name] ?? null;
    const keeps = given === null && isNeverShown(accepting.service, member, current);
    return keeps ? { kept: true } : { kept: false, given };
  });
}

/** Reads a merge patch (RFC 7396): absent keeps, null unsets, objects merge; the whole is validated. */
export function acceptChange(accepting: Accepting, shape: Shape, body: Json, current: Row): Update {
  return acceptUpdate(accepting, shape, body, current, (member, members) => {
    if (!(member.name in members)) return { kept: true };
    const before = memberValue(accepting.service, accepting.view, member, current) ?? null;
    return { kept: false, given: mergePatch(before, members[member.name] ?? null) };
  });
}

type Given = { readonly kept: true } | { readonly kept: false; readonly given: Json };

function acceptUpdate(
  accepting: Accepting,
  shape: Shape,
  body: Json,
  current: Row,
  read: (member: Member, members: { readonly [name: string]: Json }) => Given,
): Update {
  const values = Object.assign(bareObject(), current.values);
  if (!expectObject(accepting, body, '')) return { values, keyMismatch: false, notMoved: null };
  refuseUnknown(accepting, shape, body, '');
  let keyMismatch = false;
  let notMoved: string | null = null;
  for (const member of shape.members) {
    switch (member.mode) {
      case 'accepted': {
        const found = read(member, body);
        if (found.kept) break;
        const id = sourceId(member);
        if (id !== null) delete values[id];
        acceptMember(accepting, asRequired(member), found.given, pointerTo('', member.name), values);
        break;
      }
      case 'moved':
        notMoved ??= move(accepting, member, body, current, values);
        break;
      case 'must-equal':
        if (!mustEqual(accepting, member, body, current)) keyMismatch ||= isKey(accepting, member, current);
        break;
      case 'ignored':
      case 'returned':
        break;
    }
  }
  return { values, keyMismatch, notMoved };
}

/** Moves an attribute along its life cycle; why it cannot, where no transition leads there now. */
function move(
  accepting: Accepting,
  member: Member,
  body: { readonly [name: string]: Json },
  current: Row,
  values: Record<string, Json>,
): string | null {
  const id = sourceId(member);
  if (id === null || !(member.name in body)) return null;
  const wanted = body[member.name] ?? null;
  if (sameJson(wanted, current.values[id] ?? null)) return null;
  const count = accepting.errors.length;
  acceptMember(accepting, { ...member, required: true }, wanted, pointerTo('', member.name), values);
  if (accepting.errors.length > count) return null;
  const found = (member.transitions ?? []).flatMap(
    (transition) => transitionOf(accepting.service, current, transition) ?? [],
  );
  const leading = found.filter(({ transition }) => transition.to === wanted);
  const refusals = leading.map((way) => refusal(way, current, accepting.service.now));
  if (refusals.includes(null)) return null;
  return refusals[0] ?? `No transition leads ${member.name} to ${JSON.stringify(wanted)}.`;
}

/** In a patch nothing is required, but what is required cannot be unset. */
const asRequired = (member: Member): Member =>
  member.required || member.nullable ? member : { ...member, required: true };

function attributeOf(accepting: Accepting, member: Member, current: Row): Attribute | undefined {
  const { source } = member;
  if (source.kind !== 'attribute') return undefined;
  const storage = storages(accepting.service).byId.get(current.entity);
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

const isKey = (accepting: Accepting, member: Member, current: Row): boolean => {
  const attribute = attributeOf(accepting, member, current);
  return attribute !== undefined && attribute === storages(accepting.service).byId.get(current.entity)?.key;
};

function mustEqual(
  accepting: Accepting,
  member: Member,
  body: { readonly [name: string]: Json },
  current: Row,
): boolean {
  if (!(member.name in body)) return true;
  const now = memberValue(accepting.service, accepting.view, member, current) ?? null;
  if (sameJson(body[member.name], now)) return true;
  const message = `${member.name} cannot be changed; leave it out or send the value it has, ${JSON.stringify(now)}.`;
  report(accepting, pointerTo('', member.name), 'fixed', message);
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
