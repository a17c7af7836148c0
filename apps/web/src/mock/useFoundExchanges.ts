import type { ExchangeSummary } from '@isomeros/api';
import { skipToken } from '@reduxjs/toolkit/query';
import { useEffect, useMemo } from 'react';
import type { LookedFor } from './exchangesQuery.js';
import { useFindExchangesInfiniteQuery } from './mocksApi.js';

/** What of the journal was found so far. */
export interface FoundExchanges {
  /** Oldest first. */
  readonly exchanges: readonly ExchangeSummary[];
  readonly isReading: boolean;
  /** Reads those before; `null` where there are none. */
  readonly readMore: (() => void) | null;
}

/** It is looked again so long after something new happened. */
const AGAIN_AFTER_MS = 1_000;

/** The exchanges that are looked for, and those that come meanwhile. `newest`: the number of the latest of all. */
export function useFoundExchanges(mock: string, looked: LookedFor | null, newest: number): FoundExchanges {
  const { data, isFetching, hasNextPage, fetchNextPage, refetch, isUninitialized } =
    useFindExchangesInfiniteQuery(looked === null ? skipToken : { mock, looked: looked.query }, {
      refetchOnMountOrArgChange: true,
    });
  useEffect(() => {
    if (isUninitialized) return undefined;
    const timer = setTimeout(() => void refetch(), AGAIN_AFTER_MS);
    return () => clearTimeout(timer);
  }, [newest, isUninitialized, refetch]);
  const exchanges = useMemo(() => (data?.pages ?? []).flatMap(({ items }) => items).reverse(), [data]);
  return {
    exchanges: looked === null ? [] : exchanges,
    isReading: isFetching,
    readMore: hasNextPage ? () => void fetchNextPage() : null,
  };
}
