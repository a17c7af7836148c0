import type { Operand } from '../arrangement/index.js';
import {
  actsOnRecord,
  indexContract,
  type ChosenBy,
  type Custom,
  type CustomValue,
  type Operation,
} from '../contract/index.js';
import { appendAll, bareObject, isJsonObject, type Json, type Row, type ScalarType } from '../model/index.js';
import { printCondition } from '../notation/index.js';
import {
  acceptInputs,
  acceptMember,
  bodyValidationOf,
  expectObject,
  findByKey,
  pointerTo,
  NO_INPUTS,
  refuseUnknown,
  type Inputs,
} from './validateBody.js';
import type { Draft } from './draft.js';
import { holdsFor, momentAs } from './lifeCycle.js';
import type { ProblemDetail } from './message.js';
import type { WriteRequest } from './outcome.js';
import { shapeNamed, storageNamed, storages, type RequestContext, type Runtime } from './service.js';
import { planCreate, planUpdate, siblingLiterals, unusableKey, type WritePlan } from './write.js';

type Acting = Extract<Custom, { kind: 'assign' | 'create' }>;

/** What an operation of one's own comes to. */
export type PlannedCustomOperation =
  | { readonly kind: 'refused'; readonly detail: string }
  | { readonly kind: 'invalid'; readonly errors: readonly ProblemDetail[] }
  | { readonly kind: 'planned'; readonly plan: WritePlan; readonly success: 'ok' | 'created' };

/** Plans the effect of an operation of one's own on a record: values it gets, or a record made for it. */
export function planCustomOperation(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  { operation, body }: WriteRequest,
  record: Row,
): PlannedCustomOperation {
  const { custom } = operation;
  if (custom === null || !actsOnRecord(custom)) throw new Error(`${operation.id} acts on nothing.`);
  if (!holdsFor(service, record, custom.when, service.now)) {
    const detail = `The condition of ${operation.id} does not hold: ${printCondition(custom.when)}.`;
    return { kind: 'refused', detail };
  }
  const errors: ProblemDetail[] = [];
  const values = Object.assign(bareObject(), custom.kind === 'assign' ? record.values : {});
  const inputs = readSent(service, draft, operation, body, values, errors);
  const of = custom.kind === 'create' ? storageNamed(service, custom.entity).entity.id : record.entity;
  for (const fixed of custom.values) giveValue(service, draft, of, fixed, inputs, values, errors);
  if (errors.length > 0) return unfit(operation.accepts, errors);
  return custom.kind === 'assign'
    ? planAssign(service, draft, runtime, record, values)
    : planRelated(service, draft, runtime, custom, operation.accepts, record, values);
}

/** Where nothing is sent there is no body to be wrong: what was fixed once does not fit the records now. */
const unfit = (accepts: string | null, errors: readonly ProblemDetail[]): PlannedCustomOperation =>
  accepts === null
    ? { kind: 'planned', plan: { ok: false, errors }, success: 'ok' }
    : { kind: 'invalid', errors };

/** Reads what an operation is sent: into the values what a record stores, and beside them what none does. */
export function readSent(
  service: RequestContext,
  draft: Draft,
  { accepts }: Operation,
  body: Json,
  values: Record<string, Json>,
  errors: ProblemDetail[],
): Inputs {
  if (accepts === null) return NO_INPUTS;
  const validation = bodyValidationOf(service, draft);
  const inputs = isJsonObject(body)
    ? acceptInputs(validation, shapeNamed(service, accepts), body)
    : NO_INPUTS;
  appendAll(errors, validation.errors);
  acceptMembers(service, draft, accepts, body, values, errors);
  return inputs;
}

/** What is sent, by the shape of the operation; what is left out is unset. */
export function acceptMembers(
  service: RequestContext,
  draft: Draft,
  shapeName: string,
  body: Json,
  values: Record<string, Json>,
  errors: ProblemDetail[],
): void {
  const validation = bodyValidationOf(service, draft);
  if (expectObject(validation, body, '')) {
    const shape = shapeNamed(service, shapeName);
    refuseUnknown(validation, shape, body, '');
    for (const member of shape.members) {
      if (member.source.kind === 'attribute') delete values[member.source.attribute];
      if (member.source.kind === 'reference') delete values[member.source.relationship];
      acceptMember(validation, member, body[member.name] ?? null, pointerTo('', member.name), values);
    }
  }
  appendAll(errors, validation.errors);
}

/** Gives a member the value that was fixed for it. */
export function giveValue(
  service: RequestContext,
  draft: Draft,
  /** The identity of the entity whose record gets it. */
  of: string,
  { field, value: given }: CustomValue,
  inputs: Inputs,
  values: Record<string, Json>,
  errors: ProblemDetail[],
): void {
  const id = field.kind === 'attribute' ? field.attribute : field.relationship;
  const value = given?.kind === 'chosen' ? chosenBy(given, inputs) : given;
  if (value === null) {
    delete values[id];
    return;
  }
  if (field.kind === 'attribute') {
    const type = storages(service)
      .byId.get(of)
      ?.attributes.find((attribute) => attribute.id === id)?.type as ScalarType;
    values[id] = value.kind === 'now' ? momentAs(type, service.now) : value.value;
    return;
  }
  const target = value.kind === 'now' ? undefined : findByKey(service, draft, field.entity, value.value);
  if (target !== undefined) {
    values[id] = target.rid;
    return;
  }
  const wanted = value.kind === 'now' ? 'now' : JSON.stringify(value.value);
  errors.push({
    pointer: '',
    code: 'reference',
    message: `There is no ${field.entity} ${wanted} to refer to.`,
  });
}

/** The value by which of its words an input is. */
const chosenBy = ({ input, options }: ChosenBy, inputs: Inputs): Operand | null =>
  options.find(({ option }) => option === inputs.get(input))?.value ?? null;

function planAssign(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  record: Row,
  values: Record<string, Json>,
): PlannedCustomOperation {
  const plan = planUpdate(service, draft, runtime, record, { values, children: [] });
  return { kind: 'planned', plan, success: 'ok' };
}

/** Makes a record that the one acted on owns, or that refers to it. */
function planRelated(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  custom: Extract<Acting, { kind: 'create' }>,
  accepts: string | null,
  record: Row,
  values: Record<string, Json>,
): PlannedCustomOperation {
  const storage = storageNamed(service, custom.entity);
  const { canonical, resources } = indexContract(service.contract);
  const collection = resources.get(canonical.get(custom.entity)?.parent ?? '');
  const siblings = collection === undefined ? new Set<string>() : siblingLiterals(service, collection);
  const key = unusableKey(service, storage, values, siblings);
  if (key !== null) return unfit(accepts, [key]);
  const isOwned = storage.owner?.id === custom.relationship;
  if (!isOwned) values[custom.relationship] = record.rid;
  const made = { storage, values, slots: [], pointer: '' };
  const plan = planCreate(service, draft, runtime, made, isOwned ? record : null);
  return { kind: 'planned', plan, success: 'created' };
}
