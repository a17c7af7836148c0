import type {
  Exchange,
  ExchangesQuery,
  ExchangeSummary,
  LoadSecond,
  Mock,
  MockCredential,
  NewMock,
  SentMessage,
  ServedName,
} from '@isomeros/api';
import { api, type MockAction } from '../app/api/client.js';
import { askWith, answersNothing, serverApi } from '../app/api/serverApi.js';

export const mocksApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listMocks: build.query<readonly Mock[], null>({
      queryFn: askWith(api.listMocks),
      providesTags: ['Mocks'],
    }),
    createMock: build.mutation<Mock, NewMock>({
      queryFn: askWith(api.createMock),
      invalidatesTags: ['Mocks'],
    }),
    actOnMock: build.mutation<Mock, { readonly id: string; readonly action: MockAction }>({
      queryFn: askWith(({ id, action }, signal) => api.actOnMock(id, action, signal)),
      invalidatesTags: ['Mocks', 'Records', 'Migration'],
    }),
    answerUnversioned: build.mutation<Mock, { readonly id: string; readonly served: ServedName }>({
      queryFn: askWith(({ id, served }) => api.answerUnversioned(id, served)),
      invalidatesTags: ['Mocks'],
    }),
    removeMock: build.mutation<null, string>({
      queryFn: askWith(answersNothing(api.removeMock)),
      invalidatesTags: ['Mocks'],
    }),
    /** They change with what is served. */
    listCredentials: build.query<
      readonly MockCredential[],
      { readonly mock: string; readonly servesRevision: number }
    >({ queryFn: askWith(({ mock }) => api.listCredentials(mock)) }),
    readExchange: build.query<Exchange, { readonly mock: string; readonly number: number }>({
      queryFn: askWith(({ mock, number }) => api.readExchange(mock, number)),
      providesTags: ['Journal'],
    }),
    findExchanges: build.infiniteQuery<
      { readonly items: readonly ExchangeSummary[]; readonly next: string | null },
      { readonly mock: string; readonly looked: ExchangesQuery },
      string | null
    >({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: ({ next }) => next ?? undefined },
      queryFn: askWith(({ queryArg: { mock, looked }, pageParam }) =>
        api.findExchanges(mock, looked, pageParam),
      ),
      providesTags: ['Journal'],
      keepUnusedDataFor: 0,
    }),
    clearExchanges: build.mutation<null, string>({
      queryFn: askWith(answersNothing(api.clearExchanges)),
      invalidatesTags: ['Journal', 'Mocks', 'Records'],
    }),
    pinExchange: build.mutation<
      null,
      { readonly mock: string; readonly number: number; readonly isPinned: boolean }
    >({
      queryFn: askWith(
        answersNothing(({ mock, number, isPinned }) => api.pinExchange(mock, number, isPinned)),
      ),
      invalidatesTags: ['Journal'],
    }),
    readLoad: build.query<readonly LoadSecond[], { readonly mock: string; readonly seconds: number }>({
      queryFn: askWith(({ mock, seconds }) => api.readLoad(mock, seconds)),
      keepUnusedDataFor: 0,
    }),
    sendMessage: build.mutation<
      SentMessage,
      {
        readonly mock: string;
        readonly message: string;
        readonly to: ServedName;
      }
    >({ queryFn: askWith(({ mock, message, to }) => api.sendMessage(mock, message, to)) }),
  }),
});

export const {
  useListMocksQuery,
  useCreateMockMutation,
  useActOnMockMutation,
  useRemoveMockMutation,
  useAnswerUnversionedMutation,
  useListCredentialsQuery,
  useReadExchangeQuery,
  useFindExchangesInfiniteQuery,
  useClearExchangesMutation,
  usePinExchangeMutation,
  useReadLoadQuery,
  useSendMessageMutation,
} = mocksApi;
