import type { Operand } from '../arrangement/index.js';
import type { Operation } from '../contract/index.js';
import { isJsonObject, type Json } from '../model/index.js';
import type { RecordView } from './dataset.js';
import { invalidBody, type Refused } from './outcome.js';
import { shapeNamed, type RequestContext } from './service.js';
import { acceptInputs, asOperands, bodyValidationOf, refuseUnknown } from './validateBody.js';

type InputsRead = { readonly ok: true; readonly inputs: ReadonlyMap<string, Operand> } | Refused;

/** What a body says for the inputs of a query. */
export function readInputs(
  service: RequestContext,
  view: RecordView,
  operation: Operation,
  body: Json,
): InputsRead {
  if (operation.accepts === null) return { ok: true, inputs: new Map() };
  const validation = bodyValidationOf(service, view);
  const shape = shapeNamed(service, operation.accepts);
  const inputs = acceptInputs(validation, shape, body);
  if (isJsonObject(body)) refuseUnknown(validation, shape, body, '');
  return validation.errors.length > 0
    ? invalidBody(operation, validation.errors)
    : { ok: true, inputs: asOperands(inputs) };
}
