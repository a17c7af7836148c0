import type { Resource } from '../contract/index.js';
import { pointedAt } from '../engine/index.js';
import { bareObject, isJsonObject, type Json, type Row } from '../model/index.js';
import { editProblem, type EditedValues, type ProblemOfEdit } from './edit.js';
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
import { patchedValue, UNSAID } from './patchedValue.js';
import { columnOfField, recordOfKeys, sentValue } from './sentValue.js';

/** Pairs two records that are there. */
export function addPair(context: EditContext, values: EditedValues): EditRequests {
  const { service, draft, storage } = context;
  const found = operationAmong(context, pairsAt(context), ['attach']);
  if (found === null) return notOffered(context, 'adds');
  const sides = new Map<string, Row>();
  const missing: ProblemOfEdit[] = [];
  for (const { id, to } of storage.references) {
    const column = columnOfField(service.model, storage, id) ?? '';
    const side = recordOfKeys(service.model, draft, storage, column, values[column] ?? null);
    if (side === null) missing.push(editProblem(`Expected the key of a ${to} that is there.`, column));
    else sides.set(id, side);
  }
  if (missing.length > 0) return refusedEdit(...missing);
  return atPair(context, found, values, (id) => sides.get(id) ?? null);
}

/** Changes what a pair carries. */
export function changePair(context: EditContext, row: Row, values: EditedValues): EditRequests {
  const { service, storage } = context;
  const sides = new Set(storage.references.map(({ id }) => columnOfField(service.model, storage, id)));
  const moved = Object.keys(values).filter((column) => sides.has(column));
  if (moved.length > 0)
    return refusedEdit(
      ...moved.map((column) => editProblem('It tells which pair this is; add another.', column)),
    );
  const found = operationAmong(context, pairsAt(context), ['change', 'attach']);
  return found === null
    ? notOffered(context, 'changes')
    : atPair(context, found, values, sideOf(context, row), row);
}

export function removePair(context: EditContext, row: Row): EditRequests {
  const found = operationAmong(context, pairsAt(context), ['detach']);
  return found === null ? notOffered(context, 'removes') : atPair(context, found, null, sideOf(context, row));
}

const sideOf =
  ({ draft }: EditContext, row: Row) =>
  (id: string): Row | null =>
    pointedAt(draft, row, id);

/** The places of the pairs of a pairing, on either side. */
const pairsAt = ({ service, storage }: EditContext): readonly Resource[] =>
  service.contract.resources.filter(
    ({ kind, via }) => kind === 'pair' && via?.relationship === storage.entity.id,
  );

function atPair(
  context: EditContext,
  found: OperationFound,
  values: EditedValues | null,
  sideIn: (id: string) => Row | null,
  /** The pair that is changed. */
  row?: Row,
): EditRequests {
  const { service, storage } = context;
  const [from, to] = storage.references.map(({ id }) => sideIn(id));
  const isBack = found.resource.via?.direction === 'paired-back';
  const about = { record: (isBack ? to : from) ?? null, paired: (isBack ? from : to) ?? null };
  const shape = acceptedShape(context, found.operation);
  if (values === null || shape === undefined) return requestFor(context, found, about, null);
  const carried = { kind: 'shape', shape: shape.name } as const;
  const sent = sentValue(service, carried, values[storage.attributes[0]?.name ?? ''] ?? bareObject());
  if (found.operation.verb !== 'change' || row === undefined || !isJsonObject(sent))
    return requestFor(context, found, about, sent);
  const column = storage.attributes[0];
  const inside: Json = row.values[column?.id ?? ''] ?? null;
  const before = { ...row, values: isJsonObject(inside) ? inside : bareObject() };
  const body = Object.assign(bareObject(), sent);
  for (const member of shape.members) {
    const patched = patchedValue(context, found.operation, member, sent[member.name] ?? null, before);
    if (patched === null) return refusedEdit(editProblem(UNSAID, column?.name ?? null));
    body[member.name] = patched.value;
  }
  return requestFor(context, found, about, body);
}
