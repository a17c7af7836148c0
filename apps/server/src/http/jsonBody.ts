import { MAX_INTAKE_BYTES } from '@isomeros/core/intake';
import { readJson } from '@isomeros/core/model';
import express, { type NextFunction, type Request, type Response } from 'express';
import { ApiProblem, sendProblem } from './problem.js';

/** The largest body that is read, in bytes: the largest source of an intake, with room for escapes. */
export const MAX_BODY_BYTES = 12 * 1_048_576;

const raw = express.raw({ type: () => true, limit: MAX_BODY_BYTES });

/** Reads JSON bodies strictly (RFC 8259): UTF-8, unique names, limited depth; anything else is a problem. */
export function jsonBody(request: Request, response: Response, next: NextFunction): void {
  raw(request, response, (error: unknown) => {
    const failed = error === undefined ? readBody(request) : bodyProblem(error);
    if (failed === null) next();
    else sendProblem(response, failed);
  });
}

function bodyProblem(error: unknown): ApiProblem {
  const kind = error instanceof Error && 'type' in error ? error.type : '';
  return kind === 'entity.too.large'
    ? new ApiProblem(
        'too-large',
        `The body is larger than ${MAX_BODY_BYTES} bytes; a source in it may have ${MAX_INTAKE_BYTES}.`,
        {
          headers: { Connection: 'close' },
        },
      )
    : new ApiProblem('bad-request', 'The body could not be read.');
}

function readBody(request: Request): ApiProblem | null {
  const body: unknown = request.body;
  if (!Buffer.isBuffer(body) || body.length === 0) {
    request.body = undefined;
    return null;
  }
  if (request.is('application/json') === false) {
    const headers = { Accept: 'application/json' };
    return new ApiProblem('media-type', 'Expected a body of application/json.', { headers });
  }
  const text = decodeUtf8(body);
  if (text === null) return new ApiProblem('bad-request', 'The body is not UTF-8.');
  const read = readJson(text);
  if (read.ok) {
    request.body = JSON.parse(text) as unknown;
    return null;
  }
  const { message, line, column, code } = read.problem;
  const detail = `${message} Line ${line}, column ${column}.`;
  return new ApiProblem('bad-request', detail, { errors: [{ pointer: '', code, message: detail }] });
}

function decodeUtf8(bytes: Buffer): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch (error) {
    if (error instanceof TypeError) return null;
    throw error;
  }
}
