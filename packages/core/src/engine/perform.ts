import { indexContract, type Operation, type Resource } from '../contract/index.js';
import { scalarText, type EntityStorage, type Json, type Row } from '../model/index.js';
import { acceptCreate, type Accepting } from './accept.js';
import type { Change, Draft, RecordView } from './dataset.js';
import { answerList, type ListQuery } from './list.js';
import type { Location } from './locate.js';
import type { EngineResponse, Problem, ProblemDetail, StepName } from './message.js';
import { problem } from './problem.js';
import { planRemoval } from './removal.js';
import { canonicalPath, representEntry, representRecord } from './represent.js';
import { shapeNamed, statusFor, storageNamed, storages, type Service, type Surroundings } from './service.js';
import type { QueryEntry } from './target.js';
import { acceptChange, acceptReplace } from './update.js';
import { planCreate, planUpdate, unusableKey, type WritePlan } from './write.js';

/** The body of an answer to a safe operation. */
export function performRead(
  service: Service,
  view: RecordView,
  resource: Resource,
  location: Location,
  query: ListQuery,
  entries: readonly QueryEntry[],
): Json {
  switch (resource.kind) {
    case 'entry':
      return representEntry(service, view, resource);
    case 'collection':
    case 'reverse':
      return answerList(service, view, resource, location.above, query, entries);
    case 'item':
    case 'singleton':
      if (location.record === null) throw new Error(`${resource.id} was read without a record.`);
      return representRecord(service, view, location.record);
  }
}

export interface WriteRequest {
  readonly resource: Resource;
  readonly operation: Operation;
  readonly location: Location;
  readonly body: Json;
}

export type WriteOutcome =
  | { readonly ok: true; readonly response: EngineResponse; readonly changes: readonly Change[] }
  | { readonly ok: false; readonly step: StepName; readonly problem: Problem };

/** Carries out an unsafe operation against a draft. Nothing is changed here: the changes are returned. */
export function performWrite(
  service: Service,
  draft: Draft,
  surroundings: Surroundings,
  request: WriteRequest,
): WriteOutcome {
  const { operation, location } = request;
  switch (operation.verb) {
    case 'create':
      return create(service, draft, surroundings, request);
    case 'replace':
      return location.record === null
        ? create(service, draft, surroundings, request)
        : update(service, draft, surroundings, request, location.record);
    case 'change':
      return location.record === null
        ? missing(operation)
        : update(service, draft, surroundings, request, location.record);
    case 'remove':
      return location.record === null
        ? missing(operation)
        : remove(service, draft, operation, location.record);
    case 'entry':
    case 'list':
    case 'read':
      throw new Error(`${operation.id} is safe and writes nothing.`);
  }
}

const missing = (operation: Operation): WriteOutcome =>
  refuse('locate', problem(statusFor(operation, 'missing'), 'not-found', 'There is nothing here.'));

const refuse = (step: StepName, found: Problem): WriteOutcome => ({ ok: false, step, problem: found });

function invalid(operation: Operation, errors: readonly ProblemDetail[]): WriteOutcome {
  const detail =
    errors.length === 1
      ? 'One thing in the body does not fit.'
      : `${errors.length} things in the body do not fit.`;
  return refuse('body', problem(statusFor(operation, 'invalid'), 'invalid', detail, errors));
}

/** POST to a collection, or PUT to an empty slot. */
function create(
  service: Service,
  draft: Draft,
  surroundings: Surroundings,
  request: WriteRequest,
): WriteOutcome {
  const { operation, resource, location, body } = request;
  const storage = storageNamed(service, resource.entity);
  const accepting: Accepting = { service, view: draft, errors: [] };
  const shape = shapeNamed(service, `${storage.entity.name}.create`);
  const made = acceptCreate(accepting, shape, body);
  const key = unusableKey(storage, made.values, siblingLiterals(service, resource));
  const errors = key === null ? accepting.errors : [...accepting.errors, key];
  if (errors.length > 0) return invalid(operation, errors);
  const plan = planCreate(service, draft, surroundings, { storage, ...made }, location.above);
  return finish(service, draft, operation, plan, 'created');
}

/** Literal paths beside the items of a collection: a key of that text could never be reached. */
function siblingLiterals(service: Service, resource: Resource): ReadonlySet<string> {
  const siblings = indexContract(service.contract).childrenOf.get(resource.id) ?? [];
  return new Set(
    siblings.flatMap(({ segments }) => {
      const last = segments.at(-1);
      return last?.kind === 'literal' ? [last.text] : [];
    }),
  );
}

function update(
  service: Service,
  draft: Draft,
  surroundings: Surroundings,
  request: WriteRequest,
  record: Row,
): WriteOutcome {
  const { operation, body } = request;
  const storage = storageOfRecord(service, record);
  const accepting: Accepting = { service, view: draft, errors: [] };
  const shape = shapeNamed(service, operation.accepts);
  const accept = operation.verb === 'replace' ? acceptReplace : acceptChange;
  const { values, keyMismatch } = accept(accepting, shape, body, record);
  if (keyMismatch) {
    const detail = 'The body names another key than the path does.';
    return refuse(
      'body',
      problem(statusFor(operation, 'key-mismatch'), 'conflict', detail, accepting.errors),
    );
  }
  if (accepting.errors.length > 0) return invalid(operation, accepting.errors);
  return finish(
    service,
    draft,
    operation,
    planUpdate(service, draft, surroundings, storage, record, values),
    'ok',
  );
}

function storageOfRecord(service: Service, record: Row): EntityStorage {
  const storage = storages(service).byId.get(record.entity);
  if (storage === undefined) throw new Error(`The dataset has no entity ${record.entity}.`);
  return storage;
}

/** Applies a plan to the draft, so that the answer and later requests see it, and represents the record. */
function finish(
  service: Service,
  draft: Draft,
  operation: Operation,
  plan: WritePlan,
  success: 'created' | 'ok',
): WriteOutcome {
  if (!plan.ok) {
    const detail = plan.errors[0]?.message ?? 'A value is taken.';
    return refuse('store', problem(statusFor(operation, 'conflict'), 'conflict', detail, plan.errors));
  }
  draft.apply(plan.changes);
  const body = JSON.stringify(representRecord(service, draft, plan.record));
  const location = success === 'created' ? canonicalPath(service, draft, plan.record) : null;
  const headers: EngineResponse['headers'] = [
    ['Content-Type', 'application/json'],
    ...(location === null ? [] : [['Location', location] as const]),
  ];
  return {
    ok: true,
    response: { status: statusFor(operation, success), headers, body },
    changes: plan.changes,
  };
}

function remove(service: Service, draft: Draft, operation: Operation, record: Row): WriteOutcome {
  const plan = planRemoval(service.model, draft, record);
  if (plan.ok) {
    draft.apply(plan.changes);
    return {
      ok: true,
      response: { status: statusFor(operation, 'removed'), headers: [], body: null },
      changes: plan.changes,
    };
  }
  const needed = plan.blocking.slice(0, 5).map(({ row, role }) => {
    const storage = storageOfRecord(service, row);
    return `${storage.entity.name} ${scalarText(row.values[storage.key.id])} by ${role}`.trim();
  });
  const more =
    plan.blocking.length > needed.length ? ` and ${plan.blocking.length - needed.length} more` : '';
  const detail = `It is still needed: ${needed.join(', ')}${more}.`;
  return refuse('store', problem(statusFor(operation, 'restricted'), 'restricted', detail));
}
