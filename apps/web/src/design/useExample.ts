import { useEffect, useState } from 'react';
import { useAppSelector, type RootState } from '../app/store.js';
import { endpointsOf } from '../mock/endpoints.js';
import { derivationClient } from './derivationClient.js';
import type { ExampleExchange } from './workerMessages.js';

/** Where the arrangement that is looked at is served; `null` where no mock of it runs. */
function mockHost({ mocks, design: { id, arrangement } }: RootState): string | null {
  const running = Object.values(mocks.byId).filter((mock) => mock.design === id && mock.running);
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
  const [run, setRun] = useState<{
    readonly of: object | null;
    readonly example: ExampleExchange | null;
  } | null>(null);
  useEffect(() => {
    let wanted = true;
    void derivationClient.example(operation).then((example) => {
      if (wanted) setRun({ of, example });
    });
    return () => {
      wanted = false;
    };
  }, [of, operation]);
  if (run === null) return 'running';
  if (run.example === null || host === null) return run.example;
  const requestHead = run.example.requestHead.map((line) => (HOST_LINE.test(line) ? `Host: ${host}` : line));
  return { ...run.example, requestHead };
}
