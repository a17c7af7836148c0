import type { ServerResponse } from 'node:http';
import { ApiProblem } from './problem.js';

/** Told to nobody: the client of a request went away, and what it asked for was ended. */
export const clientGone = (): ApiProblem => new ApiProblem('bad-request', 'The client went away.');

/** A signal for the client of a response going away before it is answered. */
export function clientAbortSignal(response: ServerResponse): AbortSignal {
  const controller = new AbortController();
  response.once('close', () => {
    if (!response.writableEnded) controller.abort();
  });
  return controller.signal;
}
