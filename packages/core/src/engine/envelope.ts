import { HAL, takesEnveloped, type Operation } from '../contract/index.js';
import { bareObject, isJsonObject, type Json } from '../model/index.js';
import type { Problem, ProblemDetail } from './message.js';
import { invalidBody, type Refused } from './outcome.js';
import { JSON_PATCH } from './patch.js';
import { shapeNamed, type RequestContext } from './service.js';
import { bodyValidationOf, expectObject, pointerTo, report } from './validateBody.js';
import type { RecordView } from './dataset.js';

/** The record that a body holds, and where in the body it stands (RFC 6901). */
export interface Unwrapped {
  readonly ok: true;
  readonly body: Json;
  readonly pointer: string;
}

/** Takes the record out of a body that has it in a member. A JSON Patch stays: it is about the body around it. */
export function unwrapBody(
  service: RequestContext,
  view: RecordView,
  operation: Operation,
  body: Json,
  bodyType: string,
): Unwrapped | Refused {
  const bare: Unwrapped = { ok: true, body, pointer: '' };
  const { record } = service.contract.representation;
  const takes = takesEnveloped(service.contract, operation);
  if (record === null || takes === 'never' || bodyType === HAL) return bare;
  const pointer = pointerTo('', record.member);
  if (bodyType === JSON_PATCH) return { ...bare, pointer };
  if (takes === 'also') {
    const inside = isJsonObject(body) ? (body[record.member] ?? null) : null;
    const isOwn = shapeNamed(service, operation.accepts).members.some(({ name }) => name === record.member);
    return isOwn || !isJsonObject(inside) ? bare : { ok: true, body: inside, pointer };
  }
  const validation = bodyValidationOf(service, view);
  if (!expectObject(validation, body, '')) return invalidBody(operation, validation.errors);
  const { contract } = service;
  const known = new Set([record.member, contract.names.links, ...record.constants.map(({ name }) => name)]);
  if (contract.unknownMembers === 'refused')
    for (const name of Object.keys(body).filter((one) => !known.has(one))) {
      const message = `There is no member ${name} beside ${record.member}.`;
      report(validation, pointerTo('', name), 'unknown', message);
    }
  // What a merge patch leaves out stays as it is (RFC 7396).
  const isKept = operation.verb === 'change' && !(record.member in body);
  const inside = isKept ? bareObject() : (body[record.member] ?? null);
  if (!isJsonObject(inside))
    report(validation, pointer, 'required', `Expected an object in ${record.member}: the record.`);
  if (validation.errors.length > 0) return invalidBody(operation, validation.errors);
  return { ok: true, body: inside, pointer };
}

/** A problem with what is inside a body, told of the whole body. */
export function aboutWhole(found: Problem, pointer: string): Problem {
  // What is no patch is told of the patch itself.
  if (pointer === '' || found.code === 'malformed') return found;
  const inside = (error: ProblemDetail): ProblemDetail =>
    'pointer' in error ? { ...error, pointer: pointer + error.pointer } : error;
  return { ...found, errors: found.errors.map(inside) };
}
