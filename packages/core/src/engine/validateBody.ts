import type { Operand } from '../arrangement/index.js';
import { noteOn, type Member, type MemberType, type SentOnly, type Shape } from '../contract/index.js';
import {
  appendAll,
  bareObject,
  checkScalar,
  constraintValue,
  isJsonObject,
  nearest,
  sameJson,
  type EntityStorage,
  type Json,
  type Row,
  type ScalarType,
} from '../model/index.js';
import type { RecordView } from './dataset.js';
import { momentAs } from './lifeCycle.js';
import { normalKey } from './locate.js';
import type { ProblemDetail } from './message.js';
import { shapeNamed, storageNamed, type RequestContext } from './service.js';

/** What a body is read against. Errors gather here; all of them are answered at once. */
export interface BodyValidation {
  readonly service: RequestContext;
  readonly view: RecordView;
  readonly errors: ProblemDetail[];
}

/** Begins to read a body. */
export const bodyValidationOf = (service: RequestContext, view: RecordView): BodyValidation => ({
  service,
  view,
  errors: [],
});

/** A record that is made with its owner, in the same step: in a slot, or one of many. */
export interface SlotDraft {
  readonly storage: EntityStorage;
  readonly values: Record<string, Json>;
  readonly slots: readonly SlotDraft[];
  /** Where it stands in the body (RFC 6901). */
  readonly pointer: string;
}

/** RFC 6901 §3. */
export const pointerTo = (pointer: string, name: string | number): string =>
  `${pointer}/${String(name).replaceAll('~', '~0').replaceAll('/', '~1')}`;

/** Reads the body of a create. Values are keyed by identities, defaults filled in. */
export function acceptCreate(
  validation: BodyValidation,
  shape: Shape,
  body: Json,
  pointer = '',
): Omit<SlotDraft, 'storage'> {
  const values = bareObject();
  const slots: SlotDraft[] = [];
  if (!expectObject(validation, body, pointer)) return { values, slots, pointer };
  refuseUnknown(validation, shape, body, pointer);
  for (const member of shape.members) {
    const given = body[member.name] ?? null;
    const at = pointerTo(pointer, member.name);
    if (member.source.kind === 'slot') {
      const slot = acceptSlot(validation, member, given, at);
      if (slot !== null) slots.push(slot);
    } else if (member.source.kind === 'inline') appendAll(slots, acceptInline(validation, member, given, at));
    else if (member.source.kind === 'input')
      acceptInput(validation, shape, member, member.source, body, pointer);
    else acceptMember(validation, member, given, at, values);
  }
  return { values, slots, pointer };
}

/** What is to be made inside a record: an array of them, or one in a slot; none where nothing is sent. */
function acceptInline(validation: BodyValidation, member: Member, given: Json, pointer: string): SlotDraft[] {
  if (member.source.kind !== 'inline' || given === null) return [];
  const { entity, isMany } = member.source;
  const made = (body: Json, at: string): SlotDraft => ({
    storage: storageNamed(validation.service, entity),
    ...acceptCreate(validation, shapeNamed(validation.service, `${entity}.create`), body, at),
  });
  if (!isMany) return [made(given, pointer)];
  if (Array.isArray(given))
    return (given as readonly Json[]).map((item, index) => made(item, pointerTo(pointer, index)));
  report(validation, pointer, 'type', 'Expected an array.');
  return [];
}

function acceptSlot(
  validation: BodyValidation,
  member: Member,
  given: Json,
  pointer: string,
): SlotDraft | null {
  if (member.source.kind !== 'slot' || member.type.kind !== 'shape') return null;
  if (given === null && member.required) {
    report(
      validation,
      pointer,
      'required',
      `Expected an object: ${member.name} is made together with its owner.`,
    );
    return null;
  }
  const storage = storageNamed(validation.service, member.source.entity);
  const shape = shapeNamed(validation.service, member.type.shape);
  return { storage, ...acceptCreate(validation, shape, given ?? bareObject(), pointer) };
}

/** Reads one accepted member into the values: given, else its default, else unset or an error. */
export function acceptMember(
  validation: BodyValidation,
  member: Member,
  given: Json,
  pointer: string,
  values: Record<string, Json>,
): void {
  const id = sourceId(member);
  if (id === null) return;
  if (given === null) {
    if (member.default !== null) values[id] = member.default;
    else if (member.required)
      report(validation, pointer, 'required', `Expected a value: ${member.name} is required.`);
    return;
  }
  const before = validation.errors.length;
  const value =
    member.source.kind === 'reference' || member.source.kind === 'owner'
      ? acceptReference(validation, member, member.source.entity, given, pointer)
      : acceptValue(validation, member.type, given, pointer);
  if (value !== undefined) values[id] = value;
  if (validation.errors.length > before) inOwnWords(validation, before, id, pointer);
}

/** What is said of the bounds of a member takes the place of what would be said where they do not hold. */
function inOwnWords({ service, errors }: BodyValidation, from: number, id: string, pointer: string): void {
  const message = noteOn(service.contract, 'constraint', id)?.message;
  if (message === undefined) return;
  for (const [index, error] of errors.entries())
    if (index >= from && 'pointer' in error && error.pointer === pointer && error.code !== 'type')
      errors[index] = { ...error, message };
}

/** The identity under which a record holds the value of a member. */
export function sourceId(member: Member): string | null {
  switch (member.source.kind) {
    case 'attribute':
      return member.source.attribute;
    case 'reference':
    case 'owner':
      return member.source.relationship;
    case 'computed':
    case 'carried':
    case 'expanded':
    case 'slot':
    case 'inline':
    case 'links':
    case 'items':
    case 'page':
    case 'input':
    case 'token':
    case 'count':
    case 'aggregate':
    case 'fixed':
      return null;
  }
}

function acceptReference(
  validation: BodyValidation,
  member: Member,
  entity: string,
  given: Json,
  pointer: string,
): Json | undefined {
  const problem = checkScalar(member.type as ScalarType, given);
  if (problem !== null) {
    report(validation, pointer, problem.code, problem.message);
    return undefined;
  }
  const target = findByKey(validation.service, validation.view, entity, given);
  if (target !== undefined) return target.rid;
  report(
    validation,
    pointer,
    'reference',
    `Expected the ${member.name} of a ${entity} that is there; there is none with ${JSON.stringify(given)}.`,
  );
  return undefined;
}

/** The record of an entity with this key, when the key is unique everywhere. */
export function findByKey(
  service: RequestContext,
  view: RecordView,
  entity: string,
  key: Json,
): Row | undefined {
  const storage = storageNamed(service, entity);
  const value = constraintValue(storage.keyConstraint, {
    [storage.key.id]: normalKey(storage.key.type.kind, key),
  });
  return value === null ? undefined : view.find(storage, storage.keyConstraint, value);
}

/** What is sent and stored nowhere, by the names of members. */
export type Inputs = ReadonlyMap<string, Json>;

export const NO_INPUTS: Inputs = new Map();

/** Reads what is sent and stored nowhere; what does not fit is reported. */
export function acceptInputs(validation: BodyValidation, shape: Shape, body: Json): Inputs {
  const inputs = new Map<string, Json>();
  if (!expectObject(validation, body, '')) return inputs;
  for (const member of shape.members) {
    if (member.source.kind !== 'input') continue;
    const value = acceptInput(validation, shape, member, member.source, body, '');
    if (value !== null) inputs.set(member.name, value);
  }
  return inputs;
}

/** What an input is; `null` where it is nothing, or after an error was reported. */
function acceptInput(
  validation: BodyValidation,
  shape: Shape,
  { name, type, required }: Member,
  { usual, equals }: SentOnly,
  body: { readonly [name: string]: Json },
  pointer: string,
): Json {
  const given = body[name] ?? null;
  const at = pointerTo(pointer, name);
  const value = given === null ? usualOf(validation, usual, type) : acceptValue(validation, type, given, at);
  if (value === undefined) return null;
  if (value === null && required)
    report(validation, at, 'required', `Expected a value: ${name} is required.`);
  else if (value !== null && equals !== null && !sameJson(value, storedForm(shape, equals, body)))
    report(validation, at, 'unequal', `Expected the same as in ${equals}.`);
  return value;
}

/** What a member of a body is, in its stored form. */
function storedForm(shape: Shape, name: string, body: { readonly [name: string]: Json }): Json {
  const member = shape.members.find((one) => one.name === name);
  const given = body[name] ?? member?.default ?? null;
  return given === null || member === undefined ? null : normalKey(member.type.kind, given);
}

/** Inputs as what is compared with. */
export const asOperands = (inputs: Inputs): ReadonlyMap<string, Operand> =>
  new Map(
    [...inputs].flatMap(([name, value]): [string, Operand][] =>
      typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean'
        ? [[name, { kind: 'literal', value }]]
        : [],
    ),
  );

/** What an input is where it is not sent; `null` where it is nothing. */
function usualOf({ service }: BodyValidation, usual: Operand | null, type: MemberType): Json {
  if (usual === null) return null;
  return usual.kind === 'now' ? momentAs(type as ScalarType, service.now) : usual.value;
}

/** Checks a value and brings it into its stored form; `undefined` after an error was reported. */
function acceptValue(
  validation: BodyValidation,
  type: MemberType,
  given: Json,
  pointer: string,
): Json | undefined {
  switch (type.kind) {
    case 'json':
      return given;
    case 'shape':
      return acceptObject(validation, shapeNamed(validation.service, type.shape), given, pointer);
    case 'list':
      return acceptList(validation, type, given, pointer);
    case 'links':
    case 'page':
      return undefined;
    default: {
      const problem = checkScalar(type, given);
      if (problem === null) return normalKey(type.kind, given);
      report(validation, pointer, problem.code, problem.message);
      return undefined;
    }
  }
}

export function acceptObject(
  validation: BodyValidation,
  shape: Shape,
  given: Json,
  pointer: string,
): Json | undefined {
  if (!expectObject(validation, given, pointer)) return undefined;
  refuseUnknown(validation, shape, given, pointer);
  const values = bareObject();
  for (const member of shape.members) {
    acceptMember(validation, member, given[member.name] ?? null, pointerTo(pointer, member.name), values);
  }
  return values;
}

function acceptList(
  validation: BodyValidation,
  type: Extract<MemberType, { kind: 'list' }>,
  given: Json,
  pointer: string,
): Json | undefined {
  if (!Array.isArray(given)) {
    report(validation, pointer, 'type', 'Expected an array.');
    return undefined;
  }
  const items = given as readonly Json[];
  const { min, max } = type;
  if ((min !== null && items.length < min) || (max !== null && items.length > max)) {
    const range =
      max === null ? `at least ${min}` : min === null ? `at most ${max}` : `from ${min} to ${max}`;
    report(validation, pointer, 'length', `Expected ${range} entries; there are ${items.length}.`);
    return undefined;
  }
  return items.map(
    (item, index) => acceptValue(validation, type.of, item, pointerTo(pointer, index)) ?? null,
  );
}

export function expectObject(
  validation: BodyValidation,
  given: Json,
  pointer: string,
): given is { readonly [name: string]: Json } {
  if (isJsonObject(given)) return true;
  report(validation, pointer, 'type', 'Expected a JSON object.');
  return false;
}

export function refuseUnknown(
  validation: BodyValidation,
  shape: Shape,
  body: { readonly [name: string]: Json },
  pointer: string,
): void {
  if (validation.service.contract.unknownMembers === 'ignored') return;
  const known = new Set(shape.members.map((member) => member.name));
  for (const name of Object.keys(body)) {
    if (known.has(name)) continue;
    const near = nearest(name, known);
    const hint = near === null ? `Expected one of ${[...known].join(', ')}.` : `The nearest is ${near}.`;
    report(
      validation,
      pointerTo(pointer, name),
      'unknown',
      `There is no member ${name} to send here. ${hint}`,
    );
  }
}

export function report(validation: BodyValidation, pointer: string, code: string, message: string): void {
  validation.errors.push({ pointer, code, message });
}
