import { readJson } from '@isomeros/core/model';
import { MAX_INTAKE_BYTES } from '@isomeros/core/intake';
import {
  Injectable,
  SetMetadata,
  type CallHandler,
  type ExecutionContext,
  type NestInterceptor,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import express, { type Request, type Response } from 'express';
import type { Observable } from 'rxjs';
import { ApiProblem } from './problem.js';

/** How the body of an operation is read. */
interface BodyRule {
  /** The media types that are taken. */
  readonly types: readonly string[];
  /** The largest body, in bytes. */
  readonly limit: number;
  readonly tooLarge: string;
  /** Whether it is handed over as text, to be read where it is checked, a few records at a time. */
  readonly asText: boolean;
}

const JSON_TYPE = 'application/json';
const MIB = 1_048_576;

/** The largest source of an intake, with room for escapes. */
const MAX_BODY_BYTES = 24 * MIB;

const JSON_BODY: BodyRule = {
  types: [JSON_TYPE],
  limit: MAX_BODY_BYTES,
  tooLarge: `The body is larger than ${MAX_BODY_BYTES} bytes; a source in it may have ${MAX_INTAKE_BYTES}.`,
  asText: false,
};

const MAX_RECORDS_BYTES = 64 * MIB;

const BODY_RULE = 'isomeros:body';

/** The body holds records, perhaps a million of them, in JSON or in other media types. */
export const RecordsBody = (...others: readonly string[]): MethodDecorator =>
  SetMetadata(BODY_RULE, {
    types: [JSON_TYPE, ...others],
    limit: MAX_RECORDS_BYTES,
    tooLarge: `The body is larger than ${MAX_RECORDS_BYTES} bytes.`,
    asText: true,
  } satisfies BodyRule);

const READ_CODINGS: ReadonlySet<string> = new Set(['identity', 'gzip', 'x-gzip']);

/** Reads bodies strictly (RFC 8259): UTF-8, unique names, limited depth; anything else is a problem. */
@Injectable()
export class BodyInterceptor implements NestInterceptor {
  constructor(private readonly reflector: Reflector) {}

  async intercept(context: ExecutionContext, next: CallHandler): Promise<Observable<unknown>> {
    const http = context.switchToHttp();
    const request = http.getRequest<Request>();
    const rule = this.reflector.get<BodyRule | undefined>(BODY_RULE, context.getHandler()) ?? JSON_BODY;
    const bytes = await received(request, http.getResponse<Response>(), rule);
    request.body = bytes === null ? undefined : readBody(request, bytes, rule);
    return next.handle();
  }
}

/** The decoded bytes of a body; `null` where there is none. */
async function received(request: Request, response: Response, rule: BodyRule): Promise<Buffer | null> {
  const coding = (request.headers['content-encoding'] ?? 'identity').toLowerCase();
  if (!READ_CODINGS.has(coding))
    throw new ApiProblem('media-type', 'A body may be in gzip, or in no coding.', {
      headers: { 'Accept-Encoding': 'gzip' },
    });
  const read = express.raw({ type: () => true, limit: rule.limit });
  await new Promise<void>((resolve, reject) => {
    read(request, response, (error?: unknown) =>
      error === undefined ? resolve() : reject(bodyProblem(error, rule)),
    );
  });
  const body: unknown = request.body;
  return Buffer.isBuffer(body) && body.length > 0 ? body : null;
}

function bodyProblem(error: unknown, { tooLarge }: BodyRule): ApiProblem {
  const kind = error instanceof Error && 'type' in error ? error.type : '';
  return kind === 'entity.too.large'
    ? new ApiProblem('too-large', tooLarge, { headers: { Connection: 'close' } })
    : new ApiProblem('bad-request', 'The body could not be read.');
}

function readBody(request: Request, bytes: Buffer, { types, asText }: BodyRule): unknown {
  if (request.is([...types]) === false)
    throw new ApiProblem('media-type', `Expected a body of ${types.join(' or ')}.`, {
      headers: { Accept: types.join(', ') },
    });
  const text = decodeUtf8(bytes);
  if (text === null) throw new ApiProblem('bad-request', 'The body is not UTF-8.');
  if (asText) return text;
  const read = readJson(text);
  if (read.ok) return read.value;
  const { message, line, column, code } = read.problem;
  const detail = `${message} Line ${line}, column ${column}.`;
  throw new ApiProblem('bad-request', detail, { errors: [{ pointer: '', code, message: detail }] });
}

function decodeUtf8(bytes: Buffer): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch (error) {
    if (error instanceof TypeError) return null;
    throw error;
  }
}
