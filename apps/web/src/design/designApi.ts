import type { BodyOf, Design } from '@isomeros/api';
import type { Choices } from '@isomeros/core/arrangement';
import { api, type OfRevision } from '../app/api/client.js';
import { asked, serverApi } from '../app/api/serverApi.js';

export const designApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    readDesign: build.query<Design, string>({ queryFn: asked(api.readDesign) }),
    saveModel: build.mutation<Design, OfRevision & { readonly text: string }>({
      queryFn: asked(({ id, text, revision }) => api.saveModel(id, text, revision)),
    }),
    saveChoices: build.mutation<Design, OfRevision & { readonly choices: Choices }>({
      queryFn: asked(({ id, choices, revision }) => api.saveChoices(id, choices, revision)),
    }),
    renameArrangement: build.mutation<Design, OfRevision & { readonly from: string; readonly to: string }>({
      queryFn: asked(({ id, from, to, revision }) => api.renameArrangement(id, from, to, revision)),
      invalidatesTags: ['Releases'],
    }),
    removeArrangement: build.mutation<Design, OfRevision & { readonly name: string }>({
      queryFn: asked(({ id, name, revision }) => api.removeArrangement(id, name, revision)),
    }),
    answerRename: build.mutation<
      Design,
      OfRevision & { readonly rename: BodyOf<'POST /api/designs/{id}/renames'> }
    >({ queryFn: asked(({ id, rename, revision }) => api.answerRename(id, rename, revision)) }),
  }),
});

export const {
  useReadDesignQuery,
  useSaveModelMutation,
  useSaveChoicesMutation,
  useRenameArrangementMutation,
  useRemoveArrangementMutation,
  useAnswerRenameMutation,
} = designApi;
