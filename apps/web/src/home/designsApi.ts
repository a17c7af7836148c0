import type { Design, DesignSummary, Sample } from '@isomeros/api';
import { api, type OfRevision } from '../app/api/client.js';
import { asked, done, serverApi } from '../app/api/serverApi.js';

export const designsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listDesigns: build.query<readonly DesignSummary[], string>({
      queryFn: asked(api.listDesigns),
      providesTags: ['Designs'],
    }),
    listSamples: build.query<readonly Sample[], null>({ queryFn: asked(api.listSamples) }),
    createDesign: build.mutation<Design, { readonly text: string; readonly name?: string }>({
      queryFn: asked(({ text, name }) => api.createDesign(text, name)),
      invalidatesTags: ['Designs'],
    }),
    openDesignFile: build.mutation<Design, string>({
      queryFn: asked(api.openDesignFile),
      invalidatesTags: ['Designs'],
    }),
    copyDesign: build.mutation<Design, { readonly id: string; readonly name: string }>({
      queryFn: asked(({ id, name }) => api.copyDesign(id, name)),
      invalidatesTags: ['Designs'],
    }),
    renameDesign: build.mutation<Design, OfRevision & { readonly name: string }>({
      queryFn: asked(({ id, name, revision }) => api.renameDesign(id, name, revision)),
      invalidatesTags: ['Designs'],
    }),
    removeDesign: build.mutation<null, string>({
      queryFn: asked(done(api.removeDesign)),
      invalidatesTags: ['Designs', 'Mocks'],
    }),
    restoreDesign: build.mutation<Design, string>({
      queryFn: asked(api.restoreDesign),
      invalidatesTags: ['Designs', 'Mocks'],
    }),
  }),
});

export const {
  useListDesignsQuery,
  useListSamplesQuery,
  useCreateDesignMutation,
  useOpenDesignFileMutation,
  useCopyDesignMutation,
  useRenameDesignMutation,
  useRemoveDesignMutation,
  useRestoreDesignMutation,
} = designsApi;
