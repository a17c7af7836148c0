import { indexContract, SEE_OTHER, type Operation, type Resource, type Shape } from '../contract/index.js';
import {
  bareObject,
  indexModel,
  isJsonObject,
  roleOf,
  sameJson,
  scalarText,
  type EntityStorage,
  type Json,
  type Model,
  type PairsWith,
  type Row,
} from '../model/index.js';
import { acceptCreate, bodyValidationOf, type BodyValidation } from './validateBody.js';
import { pointedAt } from './dataset.js';
import type { Draft } from './draft.js';
import { allowedNow, refusal, refusalWording, transitionOf } from './lifeCycle.js';
import { renderBody, type RenderedBody } from './form.js';
import type { EngineResponse, ProblemDetail } from './message.js';
import { invalidBody, refuse, type WriteOutcome, type WriteRequest } from './outcome.js';
import { executePair } from './pairing.js';
import { problem } from './problem.js';
import { planRemoval } from './removal.js';
import { acceptPatch, JSON_PATCH, refusePatch } from './patch.js';
import { normalKey } from './locate.js';
import { readablePath } from './paths.js';
import { memberValue, representRecord, WHOLE } from './represent.js';
import {
  shapeNamed,
  statusFor,
  storageNamed,
  storages,
  type RequestContext,
  type Runtime,
} from './service.js';
import { acceptChange, acceptReplace, type Update } from './update.js';
import { recordTag, validatorHeaders } from './validators.js';
import { planCustomOperation, readSent } from './customOperation.js';
import { actOnCollection } from './actOnCollection.js';
import { memberNamed } from './memberNamed.js';
import { planCreate, planUpdate, siblingLiterals, unusableKey, type WritePlan } from './write.js';

/** Carries out an unsafe operation against a draft. Nothing is changed here: the changes are returned. */
export function executeWrite(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
): WriteOutcome {
  const { operation, location, resource } = request;
  if (resource.kind === 'pair') return executePair(service, draft, request);
  if (resource.kind === 'collection-action') return actOnCollection(service, draft, runtime, request);
  switch (operation.verb) {
    case 'create':
      return create(service, draft, runtime, request);
    case 'replace':
      return location.record === null
        ? fill(service, draft, runtime, request)
        : update(service, draft, runtime, request, location.record);
    case 'change':
      return location.record === null
        ? missing(operation)
        : update(service, draft, runtime, request, location.record);
    case 'remove':
      return location.record === null ? missing(operation) : remove(service, draft, request, location.record);
    case 'transition':
      return location.record === null
        ? missing(operation)
        : move(service, draft, runtime, request, location.record);
    case 'custom':
      return location.record === null
        ? missing(operation)
        : executeCustomOperation(service, draft, runtime, request, location.record);
    case 'attach':
    case 'detach':
    case 'entry':
    case 'list':
    case 'read':
      throw new Error(`${operation.id} writes nothing here.`);
  }
}

const missing = (operation: Operation): WriteOutcome =>
  refuse('locate', problem(statusFor(operation, 'missing'), 'not-found', 'There is nothing here.'));

/** PUT to an empty slot, where that fills it. */
function fill(service: RequestContext, draft: Draft, runtime: Runtime, request: WriteRequest): WriteOutcome {
  const { operation } = request;
  return operation.responses.some(({ code }) => code === 'created')
    ? create(service, draft, runtime, request)
    : missing(operation);
}

/** POST to a collection, or PUT to an empty slot. */
function create(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
): WriteOutcome {
  const { operation, resource, location } = request;
  const storage = storageNamed(service, resource.entity);
  const validation = bodyValidationOf(service, draft);
  const shape = shapeNamed(service, `${storage.entity.name}.create`);
  const keyed = withNewKey(shape, storage, request);
  if (keyed === null) {
    const detail = 'The body names another key than the path does.';
    return refuse('body', problem(statusFor(operation, 'key-mismatch'), 'conflict', detail));
  }
  const made = acceptCreate(validation, shape, keyed.body);
  const key = unusableKey(
    service,
    storage,
    made.values,
    siblingLiterals(service, collectionOf(service, resource)),
  );
  const errors = key === null ? validation.errors : [...validation.errors, key];
  if (errors.length > 0) return invalidBody(operation, errors);
  const plan = planCreate(service, draft, runtime, { storage, ...made }, location.above);
  return finish(service, draft, request, plan, 'created');
}

/** The body of a PUT that makes an item, with the key of the path; `null` where it names another one. */
function withNewKey(
  shape: Shape,
  { key }: EntityStorage,
  { location, body }: WriteRequest,
): { readonly body: Json } | null {
  const { newKey } = location;
  const member = shape.members.find(
    ({ source }) => source.kind === 'attribute' && source.attribute === key.id,
  );
  if (newKey === undefined || member === undefined || !isJsonObject(body)) return { body };
  const named = body[member.name] ?? null;
  if (named !== null && !sameJson(normalKey(key.type.kind, named), newKey)) return null;
  return { body: Object.assign(bareObject(), body, { [member.name]: newKey }) };
}

/** The collection that an item, or what stands in one, is made in. */
const collectionOf = (service: RequestContext, resource: Resource): Resource =>
  resource.kind === 'item'
    ? (indexContract(service.contract).resources.get(resource.parent ?? '') ?? resource)
    : resource;

function update(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
  record: Row,
): WriteOutcome {
  const { operation } = request;
  const validation = bodyValidationOf(service, draft);
  const shape = shapeNamed(service, operation.accepts);
  const read = acceptBody(validation, shape, request, record);
  if ('refused' in read) return read.refused;
  const { keyMismatch, notMoved } = read;
  if (keyMismatch) {
    const detail = 'The body names another key than the path does.';
    return refuse(
      'body',
      problem(statusFor(operation, 'key-mismatch'), 'conflict', detail, validation.errors),
    );
  }
  if (validation.errors.length > 0) return invalidBody(operation, validation.errors);
  if (notMoved !== null) return refuse('store', problem(statusFor(operation, 'state'), 'state', notMoved));
  return finish(service, draft, request, planUpdate(service, draft, runtime, record, read), 'ok');
}

/** Reads the body of a PUT or a PATCH, in whatever form the patch is. */
function acceptBody(
  validation: BodyValidation,
  shape: Shape,
  { operation, body, bodyType }: WriteRequest,
  record: Row,
): Update | { readonly refused: WriteOutcome } {
  if (operation.verb === 'replace') return acceptReplace(validation, shape, body, record);
  if (bodyType !== JSON_PATCH) return acceptChange(validation, shape, body, record);
  const patched = acceptPatch(validation, shape, body, record);
  return 'patch' in patched ? { refused: refusePatch(operation, patched.patch) } : patched;
}

/** Carries out a transition, when state and condition allow it. */
function move(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
  record: Row,
): WriteOutcome {
  const { operation, resource, body } = request;
  const found = transitionOf(service, record, resource.transition ?? '');
  if (found === null) throw new Error(`${resource.id} carries out no transition of its record.`);
  const invalid: ProblemDetail[] = [];
  readSent(service, draft, operation, body, bareObject(), invalid);
  if (invalid.length > 0) return invalidBody(operation, invalid);
  const storage = storageNamed(service, resource.entity ?? '');
  const { id, name } = found.attribute;
  const named = (): string => memberNamed(service, storage, id, name);
  const refused = refusal(found, record, service.now, refusalWording(service, found, named));
  if (refused !== null) {
    const allowed = allowedNow(found, record, service.now);
    const hint = allowed.length === 0 ? 'Nothing is allowed now.' : `Allowed now: ${allowed.join(', ')}.`;
    return refuse('store', problem(statusFor(operation, 'state'), 'state', `${refused} ${hint}`));
  }
  const values = Object.assign(bareObject(), record.values, { [found.attribute.id]: found.transition.to });
  const plan = planUpdate(service, draft, runtime, record, { values, children: [] });
  return finish(service, draft, request, plan, 'ok');
}

/** Executes a custom operation, when its condition holds. */
function executeCustomOperation(
  service: RequestContext,
  draft: Draft,
  runtime: Runtime,
  request: WriteRequest,
  record: Row,
): WriteOutcome {
  const { operation } = request;
  const planned = planCustomOperation(service, draft, runtime, request, record);
  switch (planned.kind) {
    case 'refused':
      return refuse('store', problem(statusFor(operation, 'state'), 'state', planned.detail));
    case 'invalid':
      return invalidBody(operation, planned.errors);
    case 'planned':
      return finish(service, draft, request, planned.plan, planned.success);
  }
}

function storageOfRecord(service: RequestContext, record: Row): EntityStorage {
  const storage = storages(service).byId.get(record.entity);
  if (storage === undefined) throw new Error(`The dataset has no entity ${record.entity}.`);
  return storage;
}

/** Applies a plan to the draft, so that the answer and later requests see it, and represents the record. */
function finish(
  service: RequestContext,
  draft: Draft,
  request: WriteRequest,
  plan: WritePlan,
  success: 'created' | 'ok',
): WriteOutcome {
  const { operation, resource } = request;
  if (!plan.ok) {
    const detail = plan.errors[0]?.message ?? 'A value is taken.';
    return refuse('store', problem(statusFor(operation, 'conflict'), 'conflict', detail, plan.errors));
  }
  draft.merge(plan.changes, plan.numbers);
  const { record, changes } = plan;
  const path = readablePath(service, draft, record);
  const isBare = operation.returns === null || request.isMinimal;
  const rendered = isBare ? NO_BODY : recordBody(service, draft, record);
  const status = statusFor(operation, success === 'ok' && request.isMinimal ? 'minimal' : success);
  const isElsewhere = status === SEE_OTHER;
  const headers: EngineResponse['headers'] = [
    ...rendered.headers,
    ...((success === 'created' || isElsewhere) && path !== null
      ? [['Location', service.origin + path] as const]
      : []),
    ...(success === 'ok' && resource.kind === 'action' && !isBare && path !== null
      ? [['Content-Location', service.origin + path] as const]
      : []),
    // The tag would be that of the answer, which has nothing in it.
    ...(isElsewhere ? [] : validatorsOf(service, draft, request, record)),
  ];
  return { ok: true, response: { status, headers, body: rendered.text }, changes };
}

/** The tag of what was written; after a PUT only where it was stored as it was sent (RFC 9110 §9.3.4). */
function validatorsOf(
  service: RequestContext,
  draft: Draft,
  { operation, body }: WriteRequest,
  record: Row,
): EngineResponse['headers'] {
  const home = homeOf(service, record);
  if (home === undefined) return [];
  if (operation.verb === 'replace' && !isStoredAsSent(service, draft, body, record)) return [];
  const shown = { resource: home, record, above: null, pair: null };
  return validatorHeaders(service, shown, recordTag(service, draft, shown, WHOLE));
}

const homeOf = (service: RequestContext, record: Row): Resource | undefined =>
  indexContract(service.contract).canonical.get(storageOfRecord(service, record).entity.name);

/** Whether a read gives back just what was sent, links aside. */
function isStoredAsSent(service: RequestContext, draft: Draft, body: Json, record: Row): boolean {
  const shape = shapeNamed(service, storageOfRecord(service, record).entity.name);
  if (!isJsonObject(body)) return false;
  return shape.members.every((member) => {
    const value = memberValue(service, draft, member, record);
    return value === undefined || sameJson(body[member.name] ?? null, value);
  });
}

const NO_BODY: RenderedBody = { headers: [], text: null };

const recordBody = (service: RequestContext, draft: Draft, record: Row): RenderedBody =>
  renderBody(service, 'record', representRecord(service, draft, record));

/** The pairing that a record is a pair of. */
function pairingOf(model: Model, { entity }: Row): PairsWith | null {
  const found = indexModel(model).relationshipById.get(entity);
  return found?.kind === 'pairs' ? found : null;
}

const isPairShown = ({ contract }: RequestContext, pairing: string): boolean =>
  contract.resources.some(({ kind, via }) => kind === 'pair' && via?.relationship === pairing);

/** The key of the record on one side of a pair. */
function keyText(service: RequestContext, draft: Draft, pair: Row, side: 0 | 1): string {
  const reference = storageOfRecord(service, pair).references[side];
  const record = reference === undefined ? null : pointedAt(draft, pair, reference.id);
  return record === null ? '' : scalarText(record.values[storageOfRecord(service, record).key.id]);
}

function remove(
  service: RequestContext,
  draft: Draft,
  { operation, isMinimal }: WriteRequest,
  record: Row,
): WriteOutcome {
  const { entity, singleConstraint } = storageOfRecord(service, record);
  if (singleConstraint !== null) {
    const detail = `There is always one ${entity.name}.`;
    return refuse('store', problem(statusFor(operation, 'restricted'), 'restricted', detail));
  }
  const plan = planRemoval(service.model, draft, record);
  if (plan.ok) {
    const isBare = operation.returns === null || isMinimal;
    const { headers, text } = isBare ? NO_BODY : recordBody(service, draft, record);
    draft.apply(plan.changes);
    return {
      ok: true,
      response: { status: statusFor(operation, isMinimal ? 'minimal' : 'removed'), headers, body: text },
      changes: plan.changes,
    };
  }
  const needed = plan.blocking.slice(0, 5).map(({ row, role }) => {
    const storage = storageOfRecord(service, row);
    const pairing = pairingOf(service.model, row);
    if (pairing !== null && isPairShown(service, row.entity))
      return `${pairing.from} ${keyText(service, draft, row, 0)}, which it is paired with as ${roleOf(pairing)}`;
    if (!indexContract(service.contract).canonical.has(storage.entity.name))
      return 'something that is not shown here';
    return `${storage.entity.name} ${scalarText(row.values[storage.key.id])} by ${role}`.trim();
  });
  const more =
    plan.blocking.length > needed.length ? ` and ${plan.blocking.length - needed.length} more` : '';
  const detail = `It is still needed: ${[...new Set(needed)].join(', ')}${more}.`;
  return refuse('store', problem(statusFor(operation, 'restricted'), 'restricted', detail));
}
