import { acceptedIn, HAL, type Contract, type Operation } from '../contract/index.js';
import { bareObject, isJsonObject, readJson, type Json } from '../model/index.js';
import type { EngineRequest, Problem } from './message.js';
import { mediaTypeOf } from './negotiate.js';
import { problem } from './problem.js';
import { statusFor } from './service.js';

/** Why a body is not read at all: it is too large, or of a type that is not accepted. `null` where it is read. */
export function refuseBody(
  contract: Contract,
  operation: Operation,
  { body, headers }: EngineRequest,
): Problem | null {
  if (operation.acceptedTypes.length === 0) return null;
  if (body.kind === 'coded') {
    const detail = `A body in ${body.coding.slice(0, 40)} is not read; gzip is.`;
    const accepted: Problem['headers'] = [['Accept-Encoding', 'gzip']];
    return problem(statusFor(operation, 'media-type'), 'media-type', detail, [], accepted);
  }
  const { bodyBytes } = contract.limits;
  if (body.kind === 'too-large' || (body.kind === 'text' && body.bytes > bodyBytes)) {
    const detail = `The body is larger than ${bodyBytes} bytes.`;
    return problem(statusFor(operation, 'too-large'), 'too-large', detail);
  }
  const sent = mediaTypeOf(headers.get('content-type'));
  if (operation.acceptedTypes.includes(sent)) return null;
  const offered = operation.acceptedTypes.join(', ');
  const detail = `${sent === '' ? 'The body has no Content-Type' : `${sent} is not accepted`}; accepted are ${offered}.`;
  return problem(
    statusFor(operation, 'media-type'),
    'media-type',
    detail,
    [],
    [[acceptedIn(operation.verb), offered]],
  );
}

/**
 * Reads the body of an operation that takes one; where HAL is accepted (draft-kelly-json-hal §4.1) what is the record's
 * own, since what was read as HAL is sent back as JSON, too.
 */
export function readBody(
  operation: Operation,
  { body }: EngineRequest,
): { readonly value: Json } | { readonly problem: Problem } {
  const status = statusFor(operation, 'malformed');
  if (body.kind === 'unreadable')
    return {
      problem: problem(
        status,
        'malformed',
        'The body is not UTF-8, or not in the coding that Content-Encoding names.',
      ),
    };
  const read = readJson(body.kind === 'text' ? body.text : '');
  if (read.ok) return { value: operation.acceptedTypes.includes(HAL) ? withoutHal(read.value) : read.value };
  const { message, line, column, code } = read.problem;
  const detail = `${message} Line ${line}, column ${column}.`;
  return { problem: problem(status, 'malformed', detail, [{ pointer: '', code, message: detail }]) };
}

function withoutHal(body: Json): Json {
  if (!isJsonObject(body)) return body;
  const own = Object.assign(bareObject(), body);
  delete own['_links'];
  delete own['_embedded'];
  return own;
}
