import type { BodyOf, Design } from '@isomeros/api';
import type { Choices } from '@isomeros/core/arrangement';
import { api, type OfRevision } from '../app/api/client.js';
import { askWith, serverApi } from '../app/api/serverApi.js';

export const designApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    readDesign: build.query<Design, string>({ queryFn: askWith(api.readDesign) }),
    saveModel: build.mutation<Design, OfRevision & { readonly text: string }>({
      queryFn: askWith(({ id, text, revision }) => api.saveModel(id, text, revision)),
    }),
    saveChoices: build.mutation<Design, OfRevision & { readonly choices: Choices }>({
      queryFn: askWith(({ id, choices, revision }) => api.saveChoices(id, choices, revision)),
    }),
    renameArrangement: build.mutation<Design, OfRevision & { readonly from: string; readonly to: string }>({
      queryFn: askWith(({ id, from, to, revision }) => api.renameArrangement(id, from, to, revision)),
      invalidatesTags: ['Releases'],
    }),
    removeArrangement: build.mutation<Design, OfRevision & { readonly name: string }>({
      queryFn: askWith(({ id, name, revision }) => api.removeArrangement(id, name, revision)),
    }),
    answerRename: build.mutation<
      Design,
      OfRevision & { readonly rename: BodyOf<'POST /api/designs/{id}/renames'> }
    >({ queryFn: askWith(({ id, rename, revision }) => api.answerRename(id, rename, revision)) }),
  }),
});

export const { useRenameArrangementMutation, useRemoveArrangementMutation, useAnswerRenameMutation } =
  designApi;
