import type { Publication } from '@isomeros/api';
import { api } from '../app/api/client.js';
import { askWith, serverApi } from '../app/api/serverApi.js';

/** What is published: what an arrangement implies at a revision, or a release. */
export type PublishedSource =
  | {
      readonly kind: 'draft';
      readonly design: string;
      readonly arrangement: string;
      readonly revision: number;
    }
  | { readonly kind: 'release'; readonly design: string; readonly label: string };

export const publicationsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listPublications: build.query<readonly Publication[], PublishedSource>({
      queryFn: askWith((source) =>
        source.kind === 'draft'
          ? api.listPublications(source.design, source.arrangement)
          : api.listReleasePublications(source.design, source.label),
      ),
    }),
  }),
});

export const { useListPublicationsQuery } = publicationsApi;
