import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Request, Response } from 'express';
import { clientGone } from './clientAbort.js';
import { errorCode } from '../errors.js';
import { ApiProblem, sendProblem } from './problem.js';

/** Turns whatever a handler throws into problem details. Nothing of the inside leaves the server. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('Request');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const request = host.switchToHttp().getRequest<Request>();
    if (response.headersSent) {
      response.destroy();
      return;
    }
    sendProblem(response, this.asProblem(error, request));
  }

  private asProblem(error: unknown, request: Request): ApiProblem {
    if (isUnreadablePath(error))
      return new ApiProblem('bad-request', 'The path is not percent-encoded UTF-8.');
    return asApiProblem(error, `${request.method} ${request.path}`, this.logger);
  }
}

/** What is told of an error; one that nobody expected is logged. `during`: what failed, for the log. */
export function asApiProblem(error: unknown, during: string, logger: Logger): ApiProblem {
  if (error instanceof ApiProblem) return error;
  if (error instanceof DOMException && error.name === 'AbortError') return clientGone();
  if (isDatabaseAway(error)) {
    const headers = { 'Retry-After': '2' };
    return new ApiProblem('unavailable', 'The database cannot be reached. Nothing was changed.', { headers });
  }
  logger.error(during, error instanceof Error ? error.stack : String(error));
  return new ApiProblem('unexpected', 'The request failed inside the server. Its log holds the details.');
}

/** The router, and Nest in its name, throw so where a segment cannot be decoded. */
const isUnreadablePath = (error: unknown): boolean =>
  (error instanceof HttpException && error.getStatus() === 400) ||
  (typeof error === 'object' && error !== null && 'name' in error && error.name === 'URIError');

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
]);

/** Whether an error says that the database cannot be reached, rather than that a statement is wrong. */
export const isDatabaseAway = (error: unknown): boolean => AWAY.has(errorCode(error) ?? '');
