import type { Member, Resource, Shape } from '../contract/index.js';
import {
  pathTo,
  pathWith,
  requestContextAt,
  sentBack,
  sourceId,
  Draft,
  type Dataset,
  type Service,
} from '../engine/index.js';
import { bareObject, scalarText, type EntityStorage, type Json, type Row } from '../model/index.js';
import { recordTypesOf } from '../transfer/index.js';
import {
  editedRow,
  editProblem,
  unknownType,
  type EditedValues,
  type ProblemOfEdit,
  type RecordEdit,
} from './edit.js';
import { patchedValue, UNSAID } from './patchedValue.js';
import { addPair, changePair, removePair } from './pairRequests.js';
import {
  acceptedShape,
  requestFor,
  notOffered,
  operationAmong,
  refusedEdit,
  type EditContext,
  type EditRequests,
  type OperationFound,
} from './requestParts.js';
import { columnOfField, fieldId, pairingIn, recordOfKeys, sentKey, sentValue } from './sentValue.js';

/**
 * The requests by which a client of the contract would write an edit: what creates, changes, moves, pairs or removes.
 * `now`: milliseconds since 1970; `key`: nobody has used it before (Idempotency-Key).
 */
export function editRequests(
  given: Service,
  draft: Draft,
  edit: RecordEdit,
  now: number,
  key: string,
): EditRequests {
  const storage = recordTypesOf(given.model).get(edit.type);
  if (storage === undefined) return refusedEdit(unknownType(edit));
  const mediaType = given.contract.representation.mediaTypes[0] ?? 'application/json';
  const context = { service: requestContextAt(given, now, mediaType, null), draft, storage, key };
  const isPair = pairingIn(given.model, storage);
  if (edit.kind === 'add') return (isPair ? addPair : addRecord)(context, edit.values);
  const found = editedRow(draft, storage, edit);
  if (!found.ok) return refusedEdit(found.problem);
  if (edit.kind === 'remove') return (isPair ? removePair : removeRecord)(context, found.row);
  return (isPair ? changePair : changeRecord)(context, found.row, edit.values);
}

function addRecord(context: EditContext, values: EditedValues): EditRequests {
  const { service, draft, storage } = context;
  const owner = ownerAmong(context, values);
  const isReached = ({ resource }: OperationFound): boolean =>
    pathTo(service, draft, resource, owner) !== null;
  const makes = ({ operation }: OperationFound): boolean =>
    operation.responses.some(({ code }) => code === 'created');
  const collections = resourcesOf(context, 'collection');
  const found =
    operationAmong(context, collections, ['create'], isReached) ??
    operationAmong(context, resourcesOf(context, 'singleton'), ['replace'], isReached) ??
    operationAmong(context, resourcesOf(context, 'item'), ['replace'], makes) ??
    operationAmong(context, collections, ['create']);
  if (found === null) return notOffered(context, 'adds');
  const ownerColumn =
    owner !== null || storage.owner === null ? null : columnOfField(service.model, storage, storage.owner.id);
  if (ownerColumn !== null && !isReached(found)) {
    const { operation, resource } = found;
    return refusedEdit(
      editProblem(
        `Expected the key of a ${storage.owner?.from ?? ''} that is there: ${operation.id} is at ${resource.path}.`,
        ownerColumn,
      ),
    );
  }
  const own = found.resource.kind === 'item' ? found.resource.segments.at(-1) : undefined;
  const inPath = [storage.owner?.id, own === undefined ? undefined : storage.key.id];
  const body = bodyOf(context, found, values, bareObject(), { inPath });
  if (!body.ok) return refusedEdit(...body.problems);
  const about = { record: owner, paired: null };
  if (own?.kind !== 'id') return requestFor(context, found, about, body.body);
  const key = encodeURIComponent(scalarText(values[storage.key.name] ?? null));
  return requestFor(context, found, about, body.body, () =>
    pathWith(service, draft, found.resource, owner, (name) =>
      name === own.parameter ? key || null : undefined,
    ),
  );
}

function changeRecord(context: EditContext, row: Row, values: EditedValues): EditRequests {
  const { service, draft } = context;
  const found = operationAmong(context, placesOf(context), ['change', 'replace']);
  const shape = found === null ? undefined : acceptedShape(context, found.operation);
  const moved = Object.entries(values).filter(([column]) => isMoved(context, shape, column));
  const rest = Object.entries(values).filter(([column]) => !isMoved(context, shape, column));
  const parts: EditRequests[] = [];
  if (rest.length > 0 && found === null) return notOffered(context, 'changes');
  if (rest.length > 0 && found !== null) {
    const isWhole = found.operation.verb === 'replace' && shape !== undefined;
    const start = isWhole ? sentBack(service, draft, shape, row) : bareObject();
    const body = bodyOf(context, found, Object.fromEntries(rest), start, { row });
    parts.push(
      body.ok
        ? requestFor(context, found, { record: row, paired: null }, body.body)
        : refusedEdit(...body.problems),
    );
  }
  for (const [column, wanted] of moved) parts.push(move(context, row, column, wanted));
  const problems = parts.flatMap((part) => (part.ok ? [] : part.problems));
  if (problems.length > 0) return refusedEdit(...problems);
  return { ok: true, requests: parts.flatMap((part) => (part.ok ? part.requests : [])) };
}

function removeRecord(context: EditContext, row: Row): EditRequests {
  const found = operationAmong(context, placesOf(context), ['remove']);
  return found === null
    ? notOffered(context, 'removes')
    : requestFor(context, found, { record: row, paired: null }, null);
}

/** A transition that leads to a state: one from where the record is, where there is any. */
function move(context: EditContext, row: Row, column: string, wanted: Json): EditRequests {
  const attribute = context.storage.attributes.find(({ name }) => name === column);
  const state = scalarText(row.values[attribute?.id ?? ''] ?? null);
  const leading = (attribute?.lifeCycle ?? []).filter(({ to }) => to === wanted);
  const here = leading.filter(({ from }) => from.includes(state));
  const ids = [...here, ...leading].map(({ id }) => id);
  const actions = resourcesOf(context, 'action');
  const places = ids.flatMap((id) => actions.filter(({ transition }) => transition === id));
  const found = operationAmong(context, places, ['transition']);
  if (found === null)
    return refusedEdit(
      editProblem(`No operation of the contract leads ${column} to ${scalarText(wanted)}.`, column),
    );
  const moving = requestFor(context, found, { record: row, paired: null }, null);
  if (!moving.ok) return moving;
  const requests = moving.requests.map(({ make, problems }): (typeof moving.requests)[number] => ({
    make,
    problems: (problem) => problems(problem).map((one) => ({ ...one, column })),
  }));
  return { ok: true, requests };
}

/** Whether a column has a life cycle that bodies do not move. */
function isMoved(context: EditContext, shape: Shape | undefined, column: string): boolean {
  const attribute = context.storage.attributes.find(({ name }) => name === column);
  if (attribute?.lifeCycle == null) return false;
  const mode = shape === undefined ? undefined : memberOf(context, shape, column)?.mode;
  return mode !== 'moved' && mode !== 'accepted';
}

type Body =
  | { readonly ok: true; readonly body: Json }
  | { readonly ok: false; readonly problems: readonly ProblemOfEdit[] };

interface BodyOptions {
  /** What need not be in it. */
  readonly inPath?: readonly (string | undefined)[];
  /** The record that it changes. */
  readonly row?: Row;
}

/** A body with some columns over what it starts with. */
function bodyOf(
  context: EditContext,
  { operation }: OperationFound,
  values: EditedValues,
  start: Record<string, Json>,
  { inPath = [], row }: BodyOptions = {},
): Body {
  const { service, storage } = context;
  const shape = acceptedShape(context, operation);
  if (shape === undefined) return { ok: true, body: null };
  const body = Object.assign(bareObject(), start);
  const problems: ProblemOfEdit[] = [];
  for (const [column, value] of Object.entries(values)) {
    const member = memberOf(context, shape, column);
    const id = fieldId(service.model, storage, column);
    if (member === undefined || member.mode === 'ignored' || member.mode === 'returned') {
      if (id === null || !inPath.includes(id))
        problems.push(editProblem(`${operation.id} takes no ${column}.`, column));
      continue;
    }
    const isRole = member.source.kind === 'reference' || member.source.kind === 'owner';
    const sent = isRole ? sentKey(value) : sentValue(service, member.type, value);
    if (operation.verb === 'change' && row !== undefined) {
      const patched = patchedValue(context, operation, member, sent, row);
      if (patched === null) problems.push(editProblem(UNSAID, column));
      else body[member.name] = patched.value;
    } else body[member.name] = sent;
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, body };
}

function memberOf({ service, storage }: EditContext, shape: Shape, column: string): Member | undefined {
  const id = fieldId(service.model, storage, column);
  return id === null ? undefined : shape.members.find((member) => sourceId(member) === id);
}

/** The record that owns the one that is added; `null` where none is named. */
function ownerAmong({ service, draft, storage }: EditContext, values: EditedValues): Row | null {
  for (const [column, value] of Object.entries(values))
    if (fieldId(service.model, storage, column) === storage.owner?.id)
      return recordOfKeys(service.model, draft, storage, column, value);
  return null;
}

/** Where one record of the type is. */
const placesOf = (context: EditContext): readonly Resource[] => [
  ...resourcesOf(context, 'item'),
  ...resourcesOf(context, 'singleton'),
];

/** The resources of a kind that show records of the type, canonical ones first. */
function resourcesOf({ service, storage }: EditContext, kind: Resource['kind']): readonly Resource[] {
  const all = service.contract.resources.filter(
    (one) => one.kind === kind && one.entity === storage.entity.name,
  );
  return all.sort((one, other) => Number(other.canonical) - Number(one.canonical));
}

/** The request line that would remove a record, or why there is none. Nothing is handled, and no number is given out. */
export function removalLine(
  service: Service,
  dataset: Dataset,
  storage: EntityStorage,
  row: Row,
  now: number,
): string {
  const { entity } = storage;
  const edit = { kind: 'remove', type: entity.name, number: row.rid, version: row.revision } as const;
  const wanted = editRequests(service, new Draft(dataset), edit, now, 'none');
  if (!wanted.ok) return wanted.problems.map(({ message }) => message).join(' ');
  return wanted.requests
    .map(({ make }) => {
      const { method, target } = make();
      return `${method} ${target}`;
    })
    .join(', ');
}
