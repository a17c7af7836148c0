import type { Release, ReleaseEnd } from '@isomeros/api';
import { api } from '../app/api/client.js';
import { askWith, answersNothing, serverApi } from '../app/api/serverApi.js';

export const releasesApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listReleases: build.query<readonly Release[], string>({
      queryFn: askWith(api.listReleases),
      providesTags: ['Releases'],
    }),
    /** As JSON. A release never changes; one that was made anew under its label is another. */
    readReleaseContract: build.query<
      string,
      { readonly design: string; readonly label: string; readonly madeAt: string }
    >({
      queryFn: askWith(({ design, label }) => api.readReleaseContract(design, label)),
    }),
    makeRelease: build.mutation<
      Release,
      { readonly design: string; readonly label: string; readonly arrangement: string }
    >({
      queryFn: askWith(({ design, label, arrangement }) => api.makeRelease(design, label, arrangement)),
      invalidatesTags: ['Releases'],
    }),
    markRelease: build.mutation<
      Release,
      { readonly design: string; readonly label: string; readonly end: ReleaseEnd | null }
    >({
      queryFn: askWith(({ design, label, end }) => api.markRelease(design, label, end)),
      invalidatesTags: ['Releases'],
    }),
    removeRelease: build.mutation<null, { readonly design: string; readonly label: string }>({
      queryFn: askWith(answersNothing(({ design, label }) => api.removeRelease(design, label))),
      invalidatesTags: ['Releases'],
    }),
  }),
});

export const {
  useListReleasesQuery,
  useReadReleaseContractQuery,
  useMakeReleaseMutation,
  useMarkReleaseMutation,
  useRemoveReleaseMutation,
} = releasesApi;
