import { MOST_ACTED_ON, type Operand } from '../arrangement/index.js';
import { indexContract, type Custom, type CustomFilter, type Resource } from '../contract/index.js';
import {
  bareObject,
  constraintValue,
  sameJson,
  scalarText,
  type EntityStorage,
  type Json,
  type Row,
} from '../model/index.js';
import { printCondition } from '../notation/index.js';
import { giveValue, acceptMembers } from './customOperation.js';
import { Draft } from './draft.js';
import { renderBody, type RenderedBody } from './form.js';
import { holdsFor, refusal, refusalWording, transitionOf } from './lifeCycle.js';
import { matchingRows } from './list/answer.js';
import { fixedFilter } from './list/filter.js';
import { normalKey } from './locate.js';
import { memberNamed } from './memberNamed.js';
import type { ProblemDetail } from './message.js';
import { invalidBody, refuse, type WriteOutcome, type WriteRequest } from './outcome.js';
import { problem } from './problem.js';
import { representListed } from './represent.js';
import { shapeNamed, statusFor, storageNamed, type RequestContext, type Runtime } from './service.js';
import {
  acceptInputs,
  asOperands,
  bodyValidationOf,
  NO_INPUTS,
  pointerTo,
  type BodyValidation,
  type Inputs,
} from './validateBody.js';
import { planUpdate } from './write.js';

type Many = Extract<Custom, { kind: 'many' }>;

/** A record that an action is about, and where the request names it; empty where a condition found it. */
interface Target {
  readonly record: Row;
  readonly pointer: string;
}

/** Does the same to many records: to all of them, or to none where one does not allow it. */
export function executeOnMany(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
  custom: Many,
): WriteOutcome {
  const { operation, body } = request;
  const validation = bodyValidationOf(service, draft);
  const inputs =
    operation.accepts === null
      ? NO_INPUTS
      : acceptInputs(validation, shapeNamed(service, operation.accepts), body);
  const found = validation.errors.length > 0 ? [] : targetsOf(validation, draft, request, custom, inputs);
  if (operation.accepts !== null && validation.errors.length === 0)
    acceptMembers(service, draft, operation.accepts, body, bareObject(), validation.errors);
  if (validation.errors.length > 0) return invalidBody(operation, validation.errors);
  if (found.length > MOST_ACTED_ON) {
    const detail = `${found.length} records meet the condition; at most ${MOST_ACTED_ON} are acted on at once.`;
    return refuse('store', problem(statusFor(operation, 'too-many'), 'conflict', detail));
  }
  return actOn(service, draft, runtime, request, custom, { targets: found, inputs });
}

function targetsOf(
  validation: BodyValidation,
  draft: Draft,
  { resource, location }: WriteRequest,
  { over }: Many,
  inputs: Inputs,
): readonly Target[] {
  const { service } = validation;
  const collection = indexContract(service.contract).resources.get(resource.parent ?? '') ?? resource;
  if (over.kind === 'condition') {
    const filters = over.filters.flatMap((filter) => {
      const operand = operandOf(filter, inputs);
      return operand === null ? [] : [fixedFilter(filter, operand, service.now)];
    });
    const rows = matchingRows(service, draft, collection, location.above, filters);
    return rows.map((record) => ({ record, pointer: '' }));
  }
  const ids = inputs.get(over.member);
  const storage = storageNamed(service, resource.entity);
  const seen = new Set<number>();
  return (Array.isArray(ids) ? (ids as readonly Json[]) : []).flatMap((id, index): Target[] => {
    const pointer = pointerTo(pointerTo('', over.member), index);
    const record = recordOf(draft, storage, collection, location.above, id);
    if (record === undefined) {
      const message = `There is no ${storage.entity.name} ${scalarText(id)} here.`;
      validation.errors.push({ pointer, code: 'reference', message });
      return [];
    }
    if (seen.has(record.rid)) return [];
    seen.add(record.rid);
    return [{ record, pointer }];
  });
}

/** What a filter compares with; `null` where nothing was sent that need not be. */
function operandOf({ value }: CustomFilter, inputs: Inputs): Operand | null {
  return value.kind === 'input' ? (asOperands(inputs).get(value.name) ?? null) : value;
}

/** The record of a collection with a key. */
function recordOf(
  draft: Draft,
  storage: EntityStorage,
  { via }: Resource,
  above: Row | null,
  key: Json,
): Row | undefined {
  const value = constraintValue(storage.keyConstraint, {
    [storage.key.id]: normalKey(storage.key.type.kind, key),
  });
  const record = value === null ? undefined : draft.find(storage, storage.keyConstraint, value);
  if (record === undefined || via === null) return record;
  return record.values[via.relationship] === above?.rid ? record : undefined;
}

function actOn(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
  custom: Many,
  { targets, inputs }: { readonly targets: readonly Target[]; readonly inputs: Inputs },
): WriteOutcome {
  const { operation, resource } = request;
  const { entity, key } = storageNamed(service, resource.entity);
  const trial = new Draft(draft);
  const refused: ProblemDetail[] = [];
  let changed = 0;
  for (const { record, pointer } of targets) {
    const name = `${entity.name} ${scalarText(record.values[key.id])}`;
    const report = (message: string): void => {
      refused.push({ pointer, code: 'state', message: `${name}: ${message}` });
    };
    const values = valuesAfter(service, trial, request, custom, { record, inputs }, report);
    if (values === null || sameJson(values, record.values)) continue;
    const plan = planUpdate(service, trial, runtime, record, { values, children: [] });
    if (plan.ok) trial.merge(plan.changes, plan.numbers);
    else for (const { message } of plan.errors) report(message);
    changed++;
  }
  if (refused.length > 0) {
    const detail = `Nothing was done: ${refused.length === 1 ? 'one record does' : `${refused.length} records do`} not allow it.`;
    return refuse('store', problem(statusFor(operation, 'state'), 'state', detail, refused));
  }
  const { changes } = trial;
  draft.merge(changes, trial.numbers);
  const rendered =
    custom.answers === 'counts'
      ? countsOf(service, request, targets.length, changed)
      : recordsOf(service, draft, targets);
  const response = { status: statusFor(operation, 'ok'), headers: rendered.headers, body: rendered.text };
  return { ok: true, response, changes };
}

/** What a record holds afterwards; `null` where it does not allow it, which is reported. */
function valuesAfter(
  service: RequestContext,
  draft: Draft,
  { operation, body }: WriteRequest,
  { does }: Many,
  { record, inputs }: { readonly record: Row; readonly inputs: Inputs },
  report: (message: string) => void,
): Record<string, Json> | null {
  const values: Record<string, Json> = Object.assign(bareObject(), record.values);
  if (does.kind === 'transition') {
    const found = transitionOf(service, record, does.transition);
    if (found === null) throw new Error(`${operation.id} carries out no transition of its records.`);
    const { id, name } = found.attribute;
    const storage = storageNamed(
      service,
      indexContract(service.contract).resources.get(operation.resource)?.entity ?? '',
    );
    const named = (): string => memberNamed(service, storage, id, name);
    const why = refusal(found, record, service.now, refusalWording(service, found, named));
    if (why !== null) {
      report(why);
      return null;
    }
    values[found.attribute.id] = found.transition.to;
    return values;
  }
  if (!holdsFor(service, record, does.when, service.now)) {
    report(`The condition does not hold: ${printCondition(does.when)}.`);
    return null;
  }
  const errors: ProblemDetail[] = [];
  if (operation.accepts !== null) acceptMembers(service, draft, operation.accepts, body, values, errors);
  for (const fixed of does.values) giveValue(service, draft, record.entity, fixed, inputs, values, errors);
  for (const { message } of errors) report(message);
  return errors.length > 0 ? null : values;
}

function countsOf(
  service: RequestContext,
  { operation }: WriteRequest,
  found: number,
  changed: number,
): RenderedBody {
  const body = bareObject();
  for (const { name, source } of shapeNamed(service, operation.returns).members)
    if (source.kind === 'count') body[name] = source.of === 'found' ? found : changed;
  return renderBody(service, 'object', body);
}

/** The records as they are then, as a list shows them. */
function recordsOf(service: RequestContext, draft: Draft, targets: readonly Target[]): RenderedBody {
  const { names, paging } = service.contract;
  const body = bareObject();
  body[names.items] = targets.map(({ record }) =>
    representListed(service, draft, draft.get(record.rid) ?? record),
  );
  body[names.links] = bareObject();
  return renderBody(service, paging.envelope === 'bare' ? 'bare list' : 'list', body);
}
