import { useMemo } from 'react';
import { useAppSelector } from '../app/store.js';
import { endpointsOf, selectedEndpoint, type MockEndpoint } from './endpoints.js';

/** Everything the mocks of a design serve, and what of it is looked at; `null` where nothing is served. */
export function useSelectedEndpoint(design: string): {
  readonly endpoints: readonly MockEndpoint[];
  readonly endpoint: MockEndpoint | null;
} {
  const arrangement = useAppSelector((root) => root.design.arrangement);
  const byId = useAppSelector(({ mocks }) => mocks.byId);
  const chosen = useAppSelector(({ mocks }) => mocks.chosen);
  return useMemo(() => {
    const endpoints = endpointsOf(Object.values(byId).filter((mock) => mock.design === design));
    const key = chosen?.arrangement === arrangement ? chosen.endpoint : null;
    return { endpoints, endpoint: selectedEndpoint(endpoints, key, arrangement) };
  }, [design, arrangement, byId, chosen]);
}
