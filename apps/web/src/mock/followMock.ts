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
  /** Where more happens than is shown: of so many exchanges that many, a moment ago. */
  readonly sampled: { readonly told: number; readonly of: number } | null;
}

/** Exchanges kept in the page; the journal on the server holds more. */
const MOST_KEPT = 2_000;

const RECORDS_AFTER_MS = 400;

/** What arrives is shown at once so often, however much it is. */
const SHOWN_EVERY_MS = 250;

/** It is said so long that exchanges were left out. */
const SAMPLED_FOR_MS = 2_000;

const NOTHING: Followed = { exchanges: [], progress: null, sampled: null };

/** What is known of a mock after exchanges arrived. */
export const withExchanges = (known: Followed, arrived: readonly ExchangeSummary[]): Followed => ({
  ...known,
  exchanges: mergeByNumber(known.exchanges, arrived).slice(-MOST_KEPT),
});

/** What is known of it after it changed: what was cleared is gone, and so are those of a journal that began anew. */
export function withMock(known: Followed, { exchanges: count, journal }: Mock): Followed {
  const isAnew = (known.exchanges.at(-1)?.number ?? 0) > count;
  const exchanges = isAnew
    ? []
    : known.exchanges.filter(({ number, pinned }) => number >= journal.from || pinned);
  return exchanges.length === known.exchanges.length ? known : { ...known, exchanges };
}

/** Of so many exchanges that many were told; the number of the last. */
interface Sampled {
  readonly told: number;
  readonly of: number;
  readonly last: number;
}

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
        let arrived: ExchangeSummary[] = [];
        let shown: ReturnType<typeof setTimeout> | undefined;
        const arrive = (exchange: ExchangeSummary): void => {
          arrived.push(exchange);
          shown ??= setTimeout(() => {
            shown = undefined;
            const all = arrived;
            arrived = [];
            exchanged(all);
          }, SHOWN_EVERY_MS);
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
          arrive(exchange);
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
        let over: ReturnType<typeof setTimeout> | undefined;
        source.addEventListener('sampled', ({ data }: MessageEvent<string>) => {
          const { told, of, last } = JSON.parse(data) as Sampled;
          update((known) => ({ ...known, sampled: { told, of } }));
          changeMock((mock) => ({ ...mock, exchanges: Math.max(mock.exchanges, last) }));
          recordsChanged();
          clearTimeout(over);
          over = setTimeout(() => update((known) => ({ ...known, sampled: null })), SAMPLED_FOR_MS);
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
        for (const timer of [due, shown, over]) clearTimeout(timer);
      },
    }),
  }),
});

export const { useFollowMockQuery } = followApi;
