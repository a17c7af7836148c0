import { useMemo } from 'react';
import { useAppSelector } from '../app/store.js';
import { arrangementName } from '../design/viewSlice.js';
import { endpointsOf, selectedEndpoint, type MockEndpoint } from './endpoints.js';
import { mocksOf } from './mocks.js';

/** Everything the mocks of a design serve, and what of it is looked at; `null` where nothing is served. */
export function useSelectedEndpoint(design: string): {
  readonly endpoints: readonly MockEndpoint[];
  readonly endpoint: MockEndpoint | null;
} {
  const arrangement = useAppSelector(arrangementName);
  const mocks = useAppSelector((state) => mocksOf(state, design));
  const chosen = useAppSelector(({ view }) => view.endpoint);
  return useMemo(() => {
    const endpoints = endpointsOf(mocks);
    const key = chosen?.arrangement === arrangement ? chosen.endpoint : null;
    return { endpoints, endpoint: selectedEndpoint(endpoints, key, arrangement) };
  }, [arrangement, mocks, chosen]);
}
