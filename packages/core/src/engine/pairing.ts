import { isReadable, shapeIn, type Resource } from '../contract/index.js';
import {
  bareObject,
  indexModel,
  isJsonObject,
  pairCarried,
  pairFrom,
  pairTo,
  type Json,
  type PairsWith,
  type Row,
} from '../model/index.js';
import { bodyValidationOf, acceptObject } from './validateBody.js';
import type { RowChange, RecordView } from './dataset.js';
import type { Draft } from './draft.js';
import { linksOf } from './links.js';
import { renderBody } from './form.js';
import { pairAt, type Location } from './locate.js';
import { JSON_PATCH, patchDocument, refusePatch } from './patch.js';
import { problem } from './problem.js';
import type { Projection } from './list/listQuery.js';
import { pairedRows } from './pairedRows.js';
import { pathTo } from './paths.js';
import { representListed, representRecord, representValue, WHOLE } from './represent.js';
import { invalidBody, refuse, type WriteOutcome, type WriteRequest } from './outcome.js';
import { indexOf, shapeNamed, statusFor, type RequestContext } from './service.js';
import { mergePatch } from './update.js';

/** The pairing a resource is about. */
export function pairingOf(service: RequestContext, resource: Resource): PairsWith {
  const pairs = indexModel(service.model).relationshipById.get(resource.via?.relationship ?? '');
  if (pairs?.kind !== 'pairs') throw new Error(`${resource.id} is about no pairing.`);
  return pairs;
}

/** The records on the other side of the pairs of one record, at a resource about a pairing. */
export const pairedWith = (
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row,
): readonly Row[] => pairedRows(service, view, pairingOf(service, resource), resource.via?.direction, above);

/** A record as one of those another is paired with: itself, what the pair carries, and where the pair is. */
export function representPaired(
  service: RequestContext,
  view: RecordView,
  resource: Resource,
  above: Row,
  record: Row,
  showing: Projection = WHOLE,
): Record<string, Json> {
  const represent = resource.kind === 'pair' ? representRecord : representListed;
  const body = represent(service, view, record, showing);
  if (resource.kind === 'pairing' && !resource.canonical) return body;
  const { links } = service.contract.names;
  // In lists the way to the pair is one of the links that may not be carried.
  const isLinked = resource.kind === 'pair' || service.contract.representation.memberLinks === 'all';
  const pairs = pairingOf(service, resource);
  const pair = pairAt(service.model, view, resource, above, record);
  const own = body[links] ?? null;
  const withPair = isLinked ? withPairLink(service, view, resource, own, above, record) : own;
  const carried = carriedMember(service, resource);
  if (pairs.carrying !== null && carried !== null && pair !== null) {
    const value = representValue(service, pairs.carrying, pair.values[pairCarried(pairs)] ?? null);
    delete body[links];
    body[carried] = value;
  }
  return withPair === null ? body : Object.assign(body, { [links]: withPair });
}

/** The member in which a listed or read record shows what its pair carries. */
function carriedMember(service: RequestContext, { id }: Resource): string | null {
  const { operationsOf, shapes } = indexOf(service);
  for (const { returns } of operationsOf.get(id) ?? []) {
    const answered = shapes.get(returns ?? '');
    const items = answered?.members.find(({ source }) => source.kind === 'items');
    const shape = items === undefined ? answered : shapes.get(shapeIn(items.type) ?? '');
    const carried = shape?.members.find(({ source }) => source.kind === 'carried');
    if (carried !== undefined) return carried.name;
  }
  return null;
}

/** The links of a record, and that to the pair. */
function withPairLink(
  service: RequestContext,
  view: RecordView,
  list: Resource,
  links: Json,
  above: Row,
  record: Row,
): Json {
  const resource = list.kind === 'pair' ? list : indexOf(service).resources.get(`${list.id}/pair`);
  const all = Object.assign(bareObject(), isJsonObject(links) ? links : {});
  const ofPair = linksOf(service, resource, 'items', ({ target }) => {
    const href =
      resource === undefined || target.kind !== 'pair'
        ? null
        : pathTo(service, view, resource, above, record);
    return href === null ? null : { href };
  });
  for (const [relation, link] of Object.entries(ofPair ?? {})) {
    const known = all[relation] ?? null;
    all[relation] =
      known === null ? link : Array.isArray(known) ? [...(known as Json[]), link] : [known, link];
  }
  return all;
}

/** PUT, PATCH and DELETE of a pair. */
export function executePair(service: RequestContext, draft: Draft, request: WriteRequest): WriteOutcome {
  const { operation, location } = request;
  const pairs = pairingOf(service, request.resource);
  const { above, record, pair } = location;
  if (above === null || record === null) throw new Error(`${operation.id} was asked without both sides.`);
  if (operation.verb === 'detach') return pair === null ? notPaired(request) : detach(draft, request, pair);
  if (operation.verb === 'change')
    return pair === null ? notPaired(request) : change(service, draft, request, pairs, pair);
  return attach(service, draft, request, pairs, { above, record, pair });
}

const notPaired = ({ operation }: WriteRequest): WriteOutcome =>
  refuse('locate', problem(statusFor(operation, 'missing'), 'not-found', 'They are not paired.'));

function detach(draft: Draft, { operation }: WriteRequest, pair: Row): WriteOutcome {
  const changes: RowChange[] = [{ kind: 'remove', before: pair }];
  draft.apply(changes);
  return {
    ok: true,
    response: { status: statusFor(operation, 'removed'), headers: [], body: null },
    changes,
  };
}

interface Sides extends Location {
  readonly above: Row;
  readonly record: Row;
}

function attach(
  service: RequestContext,
  draft: Draft,
  request: WriteRequest,
  pairs: PairsWith,
  sides: Sides,
): WriteOutcome {
  const values = bareObject();
  const isFar = request.resource.via?.direction === 'paired-back';
  values[pairFrom(pairs)] = (isFar ? sides.record : sides.above).rid;
  values[pairTo(pairs)] = (isFar ? sides.above : sides.record).rid;
  if (pairs.carrying !== null) {
    const validation = bodyValidationOf(service, draft);
    const carried = acceptObject(validation, shapeNamed(service, pairs.carrying), request.body, '');
    if (validation.errors.length > 0 || carried === undefined)
      return invalidBody(request.operation, validation.errors);
    values[pairCarried(pairs)] = carried;
  }
  if (sides.pair !== null) return keep(service, draft, request, pairs, sides.pair, values);
  const after: Row = { rid: draft.nextRid(), entity: pairs.id, values, revision: 1 };
  return answer(service, draft, request, [{ kind: 'add', after }], 'created');
}

/** The pair is there already: what it carries is replaced, or nothing changes. */
function keep(
  service: RequestContext,
  draft: Draft,
  request: WriteRequest,
  pairs: PairsWith,
  pair: Row,
  values: Record<string, Json>,
): WriteOutcome {
  if (pairs.carrying === null) {
    const status = statusFor(request.operation, 'attached');
    return { ok: true, response: { status, headers: [], body: null }, changes: [] };
  }
  const after: Row = { ...pair, values, revision: pair.revision + 1 };
  return answer(service, draft, request, [{ kind: 'update', before: pair, after }], 'ok');
}

function change(
  service: RequestContext,
  draft: Draft,
  request: WriteRequest,
  pairs: PairsWith,
  pair: Row,
): WriteOutcome {
  if (pairs.carrying === null) throw new Error(`${request.operation.id} changes what is not carried.`);
  const validation = bodyValidationOf(service, draft);
  const now = representValue(service, pairs.carrying, pair.values[pairCarried(pairs)] ?? null);
  const patched =
    request.bodyType === JSON_PATCH
      ? patchDocument(service, now, request.body)
      : { value: isJsonObject(request.body) ? mergePatch(now, request.body) : null };
  if ('patch' in patched) return refusePatch(request.operation, patched.patch);
  const carried = acceptObject(validation, shapeNamed(service, pairs.carrying), patched.value, '');
  if (validation.errors.length > 0 || carried === undefined)
    return invalidBody(request.operation, validation.errors);
  const values = Object.assign(bareObject(), pair.values, { [pairCarried(pairs)]: carried });
  const after: Row = { ...pair, values, revision: pair.revision + 1 };
  return answer(service, draft, request, [{ kind: 'update', before: pair, after }], 'ok');
}

function answer(
  service: RequestContext,
  draft: Draft,
  request: WriteRequest,
  changes: readonly RowChange[],
  code: 'created' | 'ok',
): WriteOutcome {
  const { operation, resource, location } = request;
  const { above, record } = location;
  if (above === null || record === null) throw new Error(`${operation.id} was asked without both sides.`);
  draft.apply(changes);
  const isBare = code === 'ok' && request.isMinimal;
  const rendered = isBare
    ? { headers: [], text: null }
    : renderBody(service, 'record', representPaired(service, draft, resource, above, record));
  const isNamed = code === 'created' && isReadable(indexOf(service), resource.id);
  const path = isNamed ? pathTo(service, draft, resource, above, record) : null;
  const headers = [
    ...rendered.headers,
    ...(path === null ? [] : [['Location', service.origin + path] as const]),
  ];
  return {
    ok: true,
    response: { status: statusFor(operation, isBare ? 'minimal' : code), headers, body: rendered.text },
    changes,
  };
}
