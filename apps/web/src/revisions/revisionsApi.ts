import type { Design, Revision } from '@isomeros/api';
import { api, type OfRevision, type RevisionList } from '../app/api/client.js';
import { askWith, serverApi } from '../app/api/serverApi.js';

export const revisionsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listRevisions: build.infiniteQuery<
      RevisionList,
      { readonly id: string; readonly latest: number },
      string | null
    >({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: ({ next }) => next ?? undefined },
      queryFn: askWith(({ queryArg, pageParam }: { queryArg: { id: string }; pageParam: string | null }) =>
        api.listRevisions(queryArg.id, pageParam),
      ),
    }),
    readRevision: build.query<Revision, { readonly id: string; readonly number: number }>({
      queryFn: askWith(({ id, number }) => api.readRevision(id, number)),
    }),
    restoreRevision: build.mutation<Design, OfRevision & { readonly number: number }>({
      queryFn: askWith(({ id, number, revision }) => api.restoreRevision(id, number, revision)),
    }),
  }),
});

export const { useListRevisionsInfiniteQuery, useReadRevisionQuery, useRestoreRevisionMutation } =
  revisionsApi;
