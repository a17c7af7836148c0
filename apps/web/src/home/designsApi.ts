import type { Design, DesignSummary, NewDesign, Sample } from '@isomeros/api';
import { api, type OfRevision } from '../app/api/client.js';
import { askWith, answersNothing, serverApi } from '../app/api/serverApi.js';

export const designsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listDesigns: build.query<readonly DesignSummary[], string>({
      queryFn: askWith(api.listDesigns),
      providesTags: ['Designs'],
    }),
    listSamples: build.query<readonly Sample[], null>({ queryFn: askWith(api.listSamples) }),
    createDesign: build.mutation<Design, NewDesign>({
      queryFn: askWith(api.createDesign),
      invalidatesTags: ['Designs'],
    }),
    removeInitialRecords: build.mutation<null, string>({
      queryFn: askWith(answersNothing(api.removeInitialRecords)),
      invalidatesTags: ['Designs'],
    }),
    copyDesign: build.mutation<Design, { readonly id: string; readonly name: string }>({
      queryFn: askWith(({ id, name }) => api.copyDesign(id, name)),
      invalidatesTags: ['Designs'],
    }),
    renameDesign: build.mutation<Design, OfRevision & { readonly name: string }>({
      queryFn: askWith(({ id, name, revision }) => api.renameDesign(id, name, revision)),
      invalidatesTags: ['Designs'],
    }),
    removeDesign: build.mutation<null, string>({
      queryFn: askWith(answersNothing(api.removeDesign)),
      invalidatesTags: ['Designs', 'Mocks'],
    }),
    restoreDesign: build.mutation<Design, string>({
      queryFn: askWith(api.restoreDesign),
      invalidatesTags: ['Designs', 'Mocks'],
    }),
  }),
});

export const {
  useListDesignsQuery,
  useListSamplesQuery,
  useCreateDesignMutation,
  useRemoveInitialRecordsMutation,
  useCopyDesignMutation,
  useRenameDesignMutation,
  useRemoveDesignMutation,
  useRestoreDesignMutation,
} = designsApi;
