import { MAX_INTAKE_BYTES } from '@isomeros/core/intake';
import { readJson } from '@isomeros/core/model';
import express, { type NextFunction, type Request, type Response } from 'express';
import { ApiProblem, sendProblem } from './problem.js';

/** The largest body that is read, in bytes: the largest source of an intake, with room for escapes. */
export const MAX_BODY_BYTES = 12 * 1_048_576;

/** The largest body of records that is read, in bytes. */
export const MAX_RECORDS_BYTES = 64 * 1_048_576;

const RECORDS = /^\/mocks\/[^/]+\/records(\/[^/]+)?$/;
const RECORDS_OF_KIND = /^\/mocks\/[^/]+\/records\/[^/]+$/;

const READ_CODINGS: ReadonlySet<string> = new Set(['identity', 'gzip', 'x-gzip']);

const raw = express.raw({ type: () => true, limit: MAX_BODY_BYTES });
const rawRecords = express.raw({ type: () => true, limit: MAX_RECORDS_BYTES });

/**
 * Reads JSON bodies strictly (RFC 8259): UTF-8, unique names, limited depth; anything else is a problem. Records of
 * one kind may be comma-separated values, too.
 */
export function jsonBody(request: Request, response: Response, next: NextFunction): void {
  const coding = (request.headers['content-encoding'] ?? 'identity').toLowerCase();
  if (!READ_CODINGS.has(coding)) {
    const headers = { 'Accept-Encoding': 'gzip' };
    sendProblem(
      response,
      new ApiProblem('media-type', 'A body may be in gzip, or in no coding.', { headers }),
    );
    return;
  }
  const isRecords = RECORDS.test(request.path);
  const read = isRecords ? rawRecords : raw;
  read(request, response, (error: unknown) => {
    const failed = error === undefined ? readOrFault(request) : bodyProblem(error, isRecords);
    if (failed === null) next();
    else if (failed instanceof ApiProblem) sendProblem(response, failed);
    else next(failed);
  });
}

function bodyProblem(error: unknown, isRecords: boolean): ApiProblem {
  const kind = error instanceof Error && 'type' in error ? error.type : '';
  return kind === 'entity.too.large'
    ? new ApiProblem(
        'too-large',
        isRecords
          ? `The body is larger than ${MAX_RECORDS_BYTES} bytes.`
          : `The body is larger than ${MAX_BODY_BYTES} bytes; a source in it may have ${MAX_INTAKE_BYTES}.`,
        {
          headers: { Connection: 'close' },
        },
      )
    : new ApiProblem('bad-request', 'The body could not be read.');
}

/** Nobody stands above a reader that is called when a body has arrived: what it throws would end the server. */
function readOrFault(request: Request): ApiProblem | Error | null {
  try {
    return readBody(request);
  } catch (error) {
    return error instanceof Error ? error : new Error(String(error));
  }
}

function readBody(request: Request): ApiProblem | null {
  const body: unknown = request.body;
  if (!Buffer.isBuffer(body) || body.length === 0) {
    request.body = undefined;
    return null;
  }
  const types = ['application/json', ...(RECORDS_OF_KIND.test(request.path) ? ['text/csv'] : [])];
  const type = request.is(types);
  if (type === false) {
    const headers = { Accept: types.join(', ') };
    return new ApiProblem('media-type', `Expected a body of ${types.join(' or ')}.`, { headers });
  }
  const text = decodeUtf8(body);
  if (text === null) return new ApiProblem('bad-request', 'The body is not UTF-8.');
  if (RECORDS.test(request.path)) {
    // There may be a million records: they are read where they are checked, a few at a time.
    request.body = text;
    return null;
  }
  const read = readJson(text);
  if (read.ok) {
    request.body = read.value;
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
