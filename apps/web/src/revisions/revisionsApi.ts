import type { Design, Revision } from '@isomeros/api';
import { api, type OfRevision, type RevisionsPage } from '../app/api/client.js';
import { asked, serverApi } from '../app/api/serverApi.js';

export const revisionsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listRevisions: build.infiniteQuery<
      RevisionsPage,
      { readonly id: string; readonly latest: number },
      string | null
    >({
      infiniteQueryOptions: { initialPageParam: null, getNextPageParam: ({ next }) => next ?? undefined },
      queryFn: asked(({ queryArg, pageParam }: { queryArg: { id: string }; pageParam: string | null }) =>
        api.listRevisions(queryArg.id, pageParam),
      ),
    }),
    readRevision: build.query<Revision, { readonly id: string; readonly number: number }>({
      queryFn: asked(({ id, number }) => api.readRevision(id, number)),
    }),
    restoreRevision: build.mutation<Design, OfRevision & { readonly number: number }>({
      queryFn: asked(({ id, number, revision }) => api.restoreRevision(id, number, revision)),
    }),
  }),
});

export const { useListRevisionsInfiniteQuery, useReadRevisionQuery, useRestoreRevisionMutation } =
  revisionsApi;
