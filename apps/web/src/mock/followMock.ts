import type { ExchangeSummary, Mock } from '@isomeros/api';
import { isWrite } from '@isomeros/core/engine';
import type { Progress } from '@isomeros/core/model';
import { api, ApiError } from '../app/api/client.js';
import { mocksApi } from './mocksApi.js';
import { mergeByNumber } from './mergeByNumber.js';

/** What is told of a mock as it happens. */
export interface Followed {
  /** The latest exchanges, oldest first. */
  readonly exchanges: readonly ExchangeSummary[];
  /** How far a large write is. */
  readonly progress: Progress | null;
}

/** Exchanges kept in the page; the journal on the server holds more. */
const MOST_KEPT = 2_000;

const RECORDS_AFTER_MS = 400;

const NOTHING: Followed = { exchanges: [], progress: null };

/** What is known of a mock after exchanges arrived. */
export const withExchanges = (known: Followed, arrived: readonly ExchangeSummary[]): Followed => ({
  ...known,
  exchanges: mergeByNumber(known.exchanges, arrived).slice(-MOST_KEPT),
});

/** What is known of it after it changed: where its journal began anew, the exchanges before are gone. */
export const withMock = (known: Followed, { exchanges: count }: Mock): Followed =>
  (known.exchanges.at(-1)?.number ?? 0) > count ? { ...known, exchanges: [] } : known;

/** Mocks followed by their events, for as long as somebody looks. */
const followApi = mocksApi.injectEndpoints({
  endpoints: (build) => ({
    followMock: build.query<Followed, string>({
      queryFn: () => ({ data: NOTHING }),
      keepUnusedDataFor: 0,
      onCacheEntryAdded: async (id, entry) => {
        const { dispatch } = entry;
        await entry.cacheDataLoaded;
        const update = (change: (known: Followed) => Followed): void => {
          const next = change(entry.getCacheEntry().data ?? NOTHING);
          entry.updateCachedData(() => next);
        };
        const changeMock = (change: (known: Mock) => Mock): void => {
          dispatch(
            mocksApi.util.updateQueryData('listMocks', null, (mocks) =>
              mocks.map((mock) => (mock.id === id ? change(mock) : mock)),
            ),
          );
        };
        const exchanged = (arrived: readonly ExchangeSummary[]): void => {
          update((known) => withExchanges(known, arrived));
          const newest = arrived.at(-1)?.number ?? 0;
          changeMock((mock) => ({ ...mock, exchanges: Math.max(mock.exchanges, newest) }));
        };
        let due: ReturnType<typeof setTimeout> | undefined;
        // Whoever looks at records sees writes of other clients, and not one by one where they are many.
        const recordsChanged = (): void => {
          due ??= setTimeout(() => {
            due = undefined;
            dispatch(mocksApi.util.invalidateTags(['Records']));
          }, RECORDS_AFTER_MS);
        };
        const source = new EventSource(api.eventsAddress(id));
        source.addEventListener('open', () => {
          api.listExchanges(id).then(exchanged, (error: unknown) => {
            // The events go on, or the stream says that it is broken.
            if (!(error instanceof ApiError)) throw error;
          });
        });
        source.addEventListener('exchange', ({ data }: MessageEvent<string>) => {
          const exchange = JSON.parse(data) as ExchangeSummary;
          exchanged([exchange]);
          if (isWrite(exchange.method) && exchange.status < 400) recordsChanged();
        });
        source.addEventListener('mock', ({ data }: MessageEvent<string>) => {
          const changed = JSON.parse(data) as Mock;
          update((known) => withMock(known, changed));
          changeMock((mock) => {
            // A release that got records of its own is a mock that is not known yet.
            if (mock.releases.length > changed.releases.length)
              dispatch(mocksApi.util.invalidateTags(['Mocks']));
            return changed;
          });
          dispatch(mocksApi.util.invalidateTags(['Records', 'Migration']));
        });
        source.addEventListener('progress', ({ data }: MessageEvent<string>) => {
          update((known) => ({ ...known, progress: JSON.parse(data) as Progress }));
        });
        source.addEventListener('removed', () => {
          source.close();
          dispatch(mocksApi.util.invalidateTags(['Mocks']));
        });
        await entry.cacheEntryRemoved;
        source.close();
        clearTimeout(due);
      },
    }),
  }),
});

export const { useFollowMockQuery } = followApi;
