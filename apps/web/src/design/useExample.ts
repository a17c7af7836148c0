import { useCallback } from 'react';
import { useAppSelector, type RootState } from '../app/store.js';
import { endpointsOf } from '../mock/endpoints.js';
import { mocksOf } from '../mock/mocks.js';
import type { ExampleExchange } from './derivation/protocol.js';
import { useAsked, type Ask } from './derivation/useAsked.js';
import { arrangementName } from './viewSlice.js';

/** Where the arrangement that is looked at is served; `null` where no mock of it runs. */
function mockHost(state: RootState): string | null {
  const arrangement = arrangementName(state);
  const running = mocksOf(state, state.document.id ?? '').filter((mock) => mock.running);
  const endpoint = endpointsOf(running).find(
    ({ kind, name }) => kind === 'arrangement' && name === arrangement,
  );
  return endpoint === undefined ? null : new URL(endpoint.url).host;
}

const HOST_LINE = /^Host: /;

/**
 * An example of an operation, run by the engine in the worker, and again when what it follows from is another: `of`. It
 * is addressed to the mock, where one runs. `null` where there is no record to show it on.
 */
export function useExample(of: object | null, operation: string): ExampleExchange | null | 'running' {
  const host = useAppSelector(mockHost);
  const ask = useCallback<Ask<{ readonly example: ExampleExchange | null }>>(
    async (derivation) => ({ example: await derivation.example(operation) }),
    [operation],
  );
  const run = useAsked(ask, of);
  if (run === null) return 'running';
  if (run.example === null || host === null) return run.example;
  const requestHead = run.example.requestHead.map((line) => (HOST_LINE.test(line) ? `Host: ${host}` : line));
  return { ...run.example, requestHead };
}
