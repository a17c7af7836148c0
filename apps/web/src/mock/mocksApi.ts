import type { Exchange, Mock, MockCredential, SentMessage } from '@isomeros/api';
import { api, type MockAction } from '../app/api/client.js';
import { askWith, answersNothing, serverApi } from '../app/api/serverApi.js';

export const mocksApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listMocks: build.query<readonly Mock[], null>({
      queryFn: askWith(api.listMocks),
      providesTags: ['Mocks'],
    }),
    createMock: build.mutation<
      Mock,
      {
        readonly design: string;
        readonly arrangements: readonly string[];
        readonly releases: readonly string[];
      }
    >({
      queryFn: askWith(({ design, arrangements, releases }) =>
        api.createMock(design, arrangements, releases),
      ),
      invalidatesTags: ['Mocks'],
    }),
    actOnMock: build.mutation<Mock, { readonly id: string; readonly action: MockAction }>({
      queryFn: askWith(({ id, action }) => api.actOnMock(id, action)),
      invalidatesTags: ['Mocks', 'Records', 'Migration'],
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
    }),
    sendMessage: build.mutation<
      SentMessage,
      {
        readonly mock: string;
        readonly message: string;
        readonly to: { readonly arrangement: string } | { readonly release: string };
      }
    >({ queryFn: askWith(({ mock, message, to }) => api.sendMessage(mock, message, to)) }),
  }),
});

export const {
  useListMocksQuery,
  useCreateMockMutation,
  useActOnMockMutation,
  useRemoveMockMutation,
  useListCredentialsQuery,
  useReadExchangeQuery,
  useSendMessageMutation,
} = mocksApi;
