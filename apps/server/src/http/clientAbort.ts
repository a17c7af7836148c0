import type { ServerResponse } from 'node:http';

/** A signal for the client of a response going away before it is answered. */
export function clientAbortSignal(response: ServerResponse): AbortSignal {
  const controller = new AbortController();
  response.once('close', () => {
    if (!response.writableEnded) controller.abort();
  });
  return controller.signal;
}
