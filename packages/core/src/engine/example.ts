import { actsOnRecord, looksThroughList } from '../contract/index.js';
import type { Operation, Resource, Shape } from '../contract/index.js';
import { bareObject, indexModel, type Json, type Row } from '../model/index.js';
import { Random } from '../seeding/index.js';
import { Filler } from './exampleFiller.js';
import { exampleOfVerify } from './exampleToken.js';
import { pointedAt, type RecordView } from './dataset.js';
import { allows, holdsFor, transitionOf } from './lifeCycle.js';
import { trailOf } from './locate.js';
import type { EngineRequest } from './message.js';
import { exampleInputs, exampleOfQuery, withParameters } from './exampleQuery.js';
import { pairedWith, pairingOf } from './pairing.js';
import { operationRequest } from './operationRequest.js';
import { planRemoval } from './removal.js';
import { isNeverShown } from './update.js';
import { pathTo } from './paths.js';
import { memberValue } from './represent.js';
import {
  indexOf,
  requestContextAt,
  shapeNamed,
  storageNamed,
  type Service,
  type RequestContext,
} from './service.js';

const USUAL_DICE = 7;

/**
 * A request that shows an operation at work on the records there are, wherever they are kept: ids that exist, a body
 * that fits.
 * `null` when there is no record to show it on.
 */
export function exampleRequest(
  given: Service,
  records: RecordView,
  operation: Operation,
  now: number,
  /** Whether secrets of records stand in it: for who shows what is answered, and never the request itself. */
  secrets: 'told' | 'masked' = 'masked',
  /** Other values are made up by another number. */
  dice = USUAL_DICE,
): EngineRequest | null {
  const mediaType = given.contract.representation.mediaTypes[0] ?? 'application/json';
  const service = requestContextAt(given, now, mediaType, null);
  const resource = indexOf(service).resources.get(operation.resource);
  if (resource === undefined) return null;
  const record = exampleRecord(service, records, operation, resource);
  if (record === undefined) return null;
  const paired =
    resource.kind === 'pair' && record !== null
      ? examplePair(service, records, operation, resource, record)
      : null;
  if (resource.kind === 'pair' && paired === null) return null;
  const target = pathTo(service, records, resource, record, paired);
  if (target === null) return null;
  const asked = withParameters(target, exampleInputs(service, records, operation, resource));
  const body =
    operation.custom?.kind === 'verify'
      ? exampleOfVerify(service, records, operation, resource, secrets)
      : operation.custom !== null && looksThroughList(operation.custom) && operation.accepts !== null
        ? exampleOfQuery(service, records, operation, resource)
        : exampleBody(service, records, operation, resource, record, dice);
  return operationRequest(
    service,
    records,
    operation,
    { resource, record, paired },
    {
      target: asked,
      body,
      mediaType: operation.acceptedTypes[0] ?? 'application/json',
      idempotencyKey: 'an-example',
    },
  );
}

/** The record whose ids fill the path; `null` where the path has none, `undefined` where none is there. */
function exampleRecord(
  service: RequestContext,
  records: RecordView,
  operation: Operation,
  resource: Resource,
): Row | null | undefined {
  if (resource.entity === null) return null;
  const hasIds = resource.segments.some((segment) => segment.kind === 'id');
  if (!hasIds && resource.kind !== 'singleton') return null;
  const candidates = [...records.all(storageNamed(service, resource.entity))];
  if (resource.kind === 'aggregate' && resource.via === null) return richest(candidates);
  if (resource.kind === 'reference') return exampleReferrer(service, records, resource);
  if (resource.kind === 'action') {
    if (operation.verb === 'custom') return exampleActedOn(service, operation, candidates);
    return candidates.find((row) => mayMove(service, resource, row)) ?? candidates[0];
  }
  if (resource.kind === 'pairing' || resource.kind === 'pair') return exampleSide(service, records, resource);
  if (resource.kind === 'item' || resource.kind === 'singleton') {
    return operation.verb === 'remove'
      ? (candidates.find((row) => planRemoval(service.model, records, row).ok) ?? candidates[0])
      : richest(candidates);
  }
  const listed = richest(
    candidates.filter((row) => pointedAt(records, row, resource.via?.relationship ?? '') !== null),
  );
  if (listed !== undefined) return pointedAt(records, listed, resource.via?.relationship ?? '') ?? undefined;
  const above = trailOf(service.contract, resource).at(-2);
  return above?.entity == null ? undefined : [...records.all(storageNamed(service, above.entity))][0];
}

/** A record that points at something by the reference, else any. */
function exampleReferrer(service: RequestContext, records: RecordView, { via }: Resource): Row | undefined {
  const relationship = via?.relationship ?? '';
  const refers = indexModel(service.model).relationshipById.get(relationship);
  const rows = refers === undefined ? [] : [...records.all(storageNamed(service, refers.from))];
  return rows.find((row) => pointedAt(records, row, relationship) !== null) ?? rows[0];
}

/** A record whose condition allows it, else any. */
function exampleActedOn(
  service: RequestContext,
  { custom }: Operation,
  candidates: readonly Row[],
): Row | undefined {
  const when = custom === null || !actsOnRecord(custom) ? [] : custom.when;
  return candidates.find((row) => holdsFor(service, row, when, service.now)) ?? candidates[0];
}

function mayMove(service: RequestContext, resource: Resource, row: Row): boolean {
  const found = transitionOf(service, row, resource.transition ?? '');
  return found !== null && allows(found, row, service.now);
}

/** The record on the near side of a pairing: one that has pairs, else any. */
function exampleSide(service: RequestContext, records: RecordView, resource: Resource): Row | undefined {
  const pairs = pairingOf(service, resource);
  const near = [
    ...records.all(storageNamed(service, resource.via?.direction === 'paired-back' ? pairs.to : pairs.from)),
  ];
  return near.find((row) => pairedWith(service, records, resource, row).length > 0) ?? near[0];
}

/** The far side of a pair: one that is paired, or for attaching one that is not yet. */
function examplePair(
  service: RequestContext,
  records: RecordView,
  operation: Operation,
  resource: Resource,
  above: Row,
): Row | null {
  const paired = pairedWith(service, records, resource, above);
  if (operation.verb !== 'attach') return paired[0] ?? null;
  const taken = new Set(paired.map(({ rid }) => rid));
  const all = [...records.all(storageNamed(service, resource.entity))];
  return all.find(({ rid }) => !taken.has(rid)) ?? all[0] ?? null;
}

/** The record of the first few with the most values set: it shows most. */
const richest = (rows: readonly Row[]): Row | undefined =>
  rows
    .slice(0, 12)
    .reduce<Row | undefined>(
      (best, row) =>
        best === undefined || Object.keys(row.values).length > Object.keys(best.values).length ? row : best,
      undefined,
    );

function exampleBody(
  service: RequestContext,
  records: RecordView,
  operation: Operation,
  resource: Resource,
  record: Row | null,
  dice: number,
): Json {
  if (operation.accepts === null) return null;
  const shape = shapeNamed(service, operation.accepts);
  const filler = new Filler(service, records, new Random(dice), service.now);
  switch (operation.verb) {
    case 'create':
      return filler.object(shape);
    case 'replace':
      return record === null ? filler.object(shape) : replacement(service, records, filler, shape, record);
    case 'change':
      if (resource.kind === 'pair') return filler.object(shape);
      return record === null ? null : oneChange(service, records, filler, shape, record);
    case 'attach':
    case 'custom':
    case 'transition':
      return filler.object(shape);
    case 'entry':
    case 'list':
    case 'read':
    case 'remove':
    case 'detach':
      return null;
  }
}

/** What a read gave, sent back with one member changed. */
function replacement(
  service: RequestContext,
  records: RecordView,
  filler: Filler,
  shape: Shape,
  record: Row,
): Json {
  return Object.assign(
    sentBack(service, records, shape, record),
    oneChange(service, records, filler, shape, record),
  );
}

/** What a record shows, as far as a body takes it. */
export function sentBack(
  service: RequestContext,
  records: RecordView,
  shape: Shape,
  record: Row,
): Record<string, Json> {
  const body = bareObject();
  for (const member of shape.members) {
    if (member.mode !== 'accepted') continue;
    const value = isNeverShown(service, member, record)
      ? undefined
      : memberValue(service, records, member, record);
    if (value !== undefined) body[member.name] = value;
  }
  return body;
}

function oneChange(
  service: RequestContext,
  records: RecordView,
  filler: Filler,
  shape: Shape,
  record: Row,
): Json {
  const body = bareObject();
  const accepted = shape.members.filter(
    (member) => member.mode === 'accepted' && member.source.kind === 'attribute',
  );
  const changing = accepted.find(({ type }) => type.kind === 'text' || type.kind === 'choice') ?? accepted[0];
  if (changing === undefined) return body;
  const now = memberValue(service, records, changing, record) ?? null;
  body[changing.name] = filler.value(changing, shape.of ?? '', now);
  return body;
}
