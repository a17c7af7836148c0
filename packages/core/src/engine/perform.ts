import { indexContract, type Operation, type Resource } from '../contract/index.js';
import { bareObject, scalarText, type EntityStorage, type Json, type Row } from '../model/index.js';
import { acceptCreate, type Accepting } from './accept.js';
import type { Draft, RecordView } from './dataset.js';
import { allowedNow, refusal, transitionOf } from './lifeCycle.js';
import { renderBody, type BodyKind, type RenderedBody } from './form.js';
import { answerList } from './list/answer.js';
import type { ListQuery } from './list/query.js';
import type { Location } from './locate.js';
import type { EngineResponse } from './message.js';
import { invalidBody, refuse, type WriteOutcome, type WriteRequest } from './outcome.js';
import { performPair, representPaired } from './pairing.js';
import { problem } from './problem.js';
import { planRemoval } from './removal.js';
import { canonicalPath, representEntry, representRecord } from './represent.js';
import { shapeNamed, statusFor, storageNamed, storages, type Serving, type Surroundings } from './service.js';
import type { QueryEntry } from './target.js';
import { acceptChange, acceptReplace } from './update.js';
import { planCreate, planUpdate, unusableKey, type WritePlan } from './write.js';

/** The body of an answer to a safe operation; of a list, also how many records there are. */
interface ReadAnswer {
  readonly body: Record<string, Json>;
  readonly kind: BodyKind;
  readonly total: number | null;
}

/** What a safe operation answers. */
export function performRead(
  service: Serving,
  view: RecordView,
  resource: Resource,
  location: Location,
  query: ListQuery,
  entries: readonly QueryEntry[],
): ReadAnswer {
  switch (resource.kind) {
    case 'entry':
      return { body: representEntry(service, view, resource), kind: 'entry', total: null };
    case 'collection':
    case 'reverse':
    case 'pairing':
      return { kind: 'list', ...answerList(service, view, resource, location.above, query, entries) };
    case 'item':
    case 'singleton':
    case 'reference':
      if (location.record === null) throw new Error(`${resource.id} was read without a record.`);
      return { body: representRecord(service, view, location.record), kind: 'record', total: null };
    case 'pair':
      if (location.record === null || location.above === null)
        throw new Error(`${resource.id} was read without both sides.`);
      return {
        body: representPaired(service, view, resource, location.above, location.record),
        kind: 'record',
        total: null,
      };
    case 'action':
      throw new Error(`${resource.id} is not read.`);
  }
}

/** Carries out an unsafe operation against a draft. Nothing is changed here: the changes are returned. */
export function performWrite(
  service: Serving,
  draft: Draft,
  surroundings: Surroundings,
  request: WriteRequest,
): WriteOutcome {
  const { operation, location, resource } = request;
  if (resource.kind === 'pair') return performPair(service, draft, request);
  switch (operation.verb) {
    case 'create':
      return create(service, draft, surroundings, request);
    case 'replace':
      return location.record === null
        ? fill(service, draft, surroundings, request)
        : update(service, draft, surroundings, request, location.record);
    case 'change':
      return location.record === null
        ? missing(operation)
        : update(service, draft, surroundings, request, location.record);
    case 'remove':
      return location.record === null
        ? missing(operation)
        : remove(service, draft, operation, location.record);
    case 'transition':
      return location.record === null
        ? missing(operation)
        : move(service, draft, surroundings, request, location.record);
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
function fill(
  service: Serving,
  draft: Draft,
  surroundings: Surroundings,
  request: WriteRequest,
): WriteOutcome {
  const { operation } = request;
  return operation.responses.some(({ code }) => code === 'created')
    ? create(service, draft, surroundings, request)
    : missing(operation);
}

/** POST to a collection, or PUT to an empty slot. */
function create(
  service: Serving,
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
  if (errors.length > 0) return invalidBody(operation, errors);
  const plan = planCreate(service, draft, surroundings, { storage, ...made }, location.above);
  return finish(service, draft, operation, plan, 'created');
}

/** Literal paths beside the items of a collection: a key of that text could never be reached. */
function siblingLiterals(service: Serving, resource: Resource): ReadonlySet<string> {
  const siblings = indexContract(service.contract).childrenOf.get(resource.id) ?? [];
  return new Set(
    siblings.flatMap(({ segments }) => {
      const last = segments.at(-1);
      return last?.kind === 'literal' ? [last.text] : [];
    }),
  );
}

function update(
  service: Serving,
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
  const { values, keyMismatch, notMoved } = accept(accepting, shape, body, record);
  if (keyMismatch) {
    const detail = 'The body names another key than the path does.';
    return refuse(
      'body',
      problem(statusFor(operation, 'key-mismatch'), 'conflict', detail, accepting.errors),
    );
  }
  if (accepting.errors.length > 0) return invalidBody(operation, accepting.errors);
  if (notMoved !== null) return refuse('store', problem(statusFor(operation, 'state'), 'state', notMoved));
  return finish(
    service,
    draft,
    operation,
    planUpdate(service, draft, surroundings, storage, record, values),
    'ok',
  );
}

/** Carries out a transition, when state and condition allow it. */
function move(
  service: Serving,
  draft: Draft,
  surroundings: Surroundings,
  request: WriteRequest,
  record: Row,
): WriteOutcome {
  const { operation, resource } = request;
  const found = transitionOf(service, record, resource.transition ?? '');
  if (found === null) throw new Error(`${resource.id} carries out no transition of its record.`);
  const refused = refusal(found, record, service.now);
  if (refused !== null) {
    const allowed = allowedNow(found, record, service.now);
    const hint = allowed.length === 0 ? 'Nothing is allowed now.' : `Allowed now: ${allowed.join(', ')}.`;
    return refuse('store', problem(statusFor(operation, 'state'), 'state', `${refused} ${hint}`));
  }
  const values = Object.assign(bareObject(), record.values, { [found.attribute.id]: found.transition.to });
  const plan = planUpdate(service, draft, surroundings, storageOfRecord(service, record), record, values);
  return finish(service, draft, operation, plan, 'ok');
}

function storageOfRecord(service: Serving, record: Row): EntityStorage {
  const storage = storages(service).byId.get(record.entity);
  if (storage === undefined) throw new Error(`The dataset has no entity ${record.entity}.`);
  return storage;
}

/** Applies a plan to the draft, so that the answer and later requests see it, and represents the record. */
function finish(
  service: Serving,
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
  const rendered = operation.returns === null ? NO_BODY : recordBody(service, draft, plan.record);
  const location = success === 'created' ? canonicalPath(service, draft, plan.record) : null;
  const headers: EngineResponse['headers'] = [
    ...rendered.headers,
    ...(location === null ? [] : [['Location', location] as const]),
  ];
  return {
    ok: true,
    response: { status: statusFor(operation, success), headers, body: rendered.text },
    changes: plan.changes,
  };
}

const NO_BODY: RenderedBody = { headers: [], text: null };

const recordBody = (service: Serving, draft: Draft, record: Row): RenderedBody =>
  renderBody(service, 'record', representRecord(service, draft, record));

function remove(service: Serving, draft: Draft, operation: Operation, record: Row): WriteOutcome {
  const plan = planRemoval(service.model, draft, record);
  if (plan.ok) {
    const { headers, text } = operation.returns === null ? NO_BODY : recordBody(service, draft, record);
    draft.apply(plan.changes);
    return {
      ok: true,
      response: { status: statusFor(operation, 'removed'), headers, body: text },
      changes: plan.changes,
    };
  }
  const needed = plan.blocking.slice(0, 5).map(({ row, role }) => {
    const storage = storageOfRecord(service, row);
    if (!indexContract(service.contract).canonical.has(storage.entity.name))
      return 'something that is not shown here';
    return `${storage.entity.name} ${scalarText(row.values[storage.key.id])} by ${role}`.trim();
  });
  const more =
    plan.blocking.length > needed.length ? ` and ${plan.blocking.length - needed.length} more` : '';
  const detail = `It is still needed: ${[...new Set(needed)].join(', ')}${more}.`;
  return refuse('store', problem(statusFor(operation, 'restricted'), 'restricted', detail));
}
