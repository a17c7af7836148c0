import {
  indexContract,
  takesEnveloped,
  type Member,
  type Operation,
  type Resource,
  type Shape,
  type Verb,
} from '../contract/index.js';
import {
  JSON_PATCH,
  operationRequest,
  pathTo,
  pointerTo,
  sourceId,
  type OperationSubject,
  type Draft,
  type EngineRequest,
  type Problem,
  type RequestContext,
} from '../engine/index.js';
import { isJsonObject, type EntityStorage, type Json } from '../model/index.js';
import { editProblem, pointerIn, type ProblemOfEdit } from './edit.js';
import { columnOfField, pairingIn } from './sentValue.js';

/** One request that an edit needs. It is made once those before it have been handled. */
export interface EditRequest {
  readonly make: () => EngineRequest;
  /** What the contract refuses, told of the columns. */
  readonly problems: (found: Problem) => readonly ProblemOfEdit[];
}

export type EditRequests =
  | { readonly ok: true; readonly requests: readonly EditRequest[] }
  | { readonly ok: false; readonly problems: readonly ProblemOfEdit[] };

export const refusedEdit = (...problems: ProblemOfEdit[]): EditRequests => ({ ok: false, problems });

/** What edits of one type of record are written by. */
export interface EditContext {
  readonly service: RequestContext;
  readonly draft: Draft;
  readonly storage: EntityStorage;
  /** Nobody has used it before (Idempotency-Key). */
  readonly key: string;
}

/** An operation with where it is. */
export interface OperationFound {
  readonly resource: Resource;
  readonly operation: Operation;
}

/** The first operation of the first of some verbs that resources have. */
export function operationAmong(
  { service }: EditContext,
  resources: readonly Resource[],
  verbs: readonly Verb[],
  isMeant: (found: OperationFound) => boolean = () => true,
): OperationFound | null {
  const { operationsOf } = indexContract(service.contract);
  for (const verb of verbs)
    for (const resource of resources) {
      const operation = operationsOf.get(resource.id)?.find((one) => one.verb === verb);
      if (operation !== undefined && isMeant({ resource, operation })) return { resource, operation };
    }
  return null;
}

export const notOffered = ({ storage }: EditContext, does: string): EditRequests =>
  refusedEdit(editProblem(`The contract offers no operation that ${does} a ${storage.entity.name}.`));

/** The shape of the body that an operation takes. */
export const acceptedShape = ({ service }: EditContext, { accepts }: Operation): Shape | undefined =>
  indexContract(service.contract).shapes.get(accepts ?? '');

/** Forms that a body can be sent in; a patch that merges says most with least. */
const PREFERRED_TYPES = ['application/merge-patch+json', 'application/json', JSON_PATCH];

export const bodyTypeOf = ({ acceptedTypes }: Operation): string =>
  PREFERRED_TYPES.find((type) => acceptedTypes.includes(type)) ?? 'application/json';

/** The request for an operation. `path`: where it is not that of what it is about. */
export function requestFor(
  context: EditContext,
  { resource, operation }: OperationFound,
  about: Omit<OperationSubject, 'resource'>,
  body: Json,
  path?: () => string | null,
): EditRequests {
  const { service, draft, key } = context;
  const target = path ?? (() => pathTo(service, draft, resource, about.record, about.paired));
  if (target() === null)
    return refusedEdit(editProblem(`Expected the record that ${operation.id} lies below: ${resource.path}.`));
  const mediaType = bodyTypeOf(operation);
  const make = (): EngineRequest => {
    // Those before may have changed it.
    const record = about.record === null ? null : (draft.get(about.record.rid) ?? about.record);
    const now = { resource, record, paired: about.paired };
    return operationRequest(service, draft, operation, now, {
      target: target() ?? '',
      body: mediaType === JSON_PATCH ? asPatch(body, envelopeOf(context, operation)) : body,
      mediaType,
      idempotencyKey: `${key}-${operation.id}`,
    });
  };
  const problems = (found: Problem): readonly ProblemOfEdit[] => told(context, operation, found);
  return { ok: true, requests: [{ make, problems }] };
}

/** A body as a JSON Patch (RFC 6902 §4.1: what is there already is replaced). */
const asPatch = (body: Json, prefix: string): Json =>
  isJsonObject(body)
    ? Object.entries(body).map(([name, value]) => ({ op: 'add', path: pointerTo(prefix, name), value }))
    : body;

/** Where in a body the record stands (RFC 6901). */
function envelopeOf({ service: { contract } }: EditContext, operation: Operation): string {
  const { record } = contract.representation;
  return record === null || takesEnveloped(contract, operation) !== 'always'
    ? ''
    : pointerTo('', record.member);
}

function told(
  context: EditContext,
  operation: Operation,
  { status, detail, errors }: Problem,
): readonly ProblemOfEdit[] {
  if (errors.length === 0) return [{ column: null, status, message: detail }];
  const shape = acceptedShape(context, operation);
  const depth = envelopeOf(context, operation) === '' ? 0 : 1;
  return errors.map((error): ProblemOfEdit => {
    const name = pointerIn(error)[depth];
    const member = shape?.members.find((one) => one.name === name);
    return { column: columnOf(context, member), status, message: error.message };
  });
}

function columnOf({ service, storage }: EditContext, member: Member | undefined): string | null {
  // A body about a pair is what the pair carries, which is one column.
  if (pairingIn(service.model, storage)) return storage.attributes[0]?.name ?? null;
  const id = member === undefined ? null : sourceId(member);
  return id === null ? null : columnOfField(service.model, storage, id);
}
