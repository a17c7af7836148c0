import type { Release } from '@isomeros/api';
import { releasesApi } from './releasesApi.js';
import type { RootState } from '../app/store.js';

const NONE: readonly Release[] = [];

/** The releases of a design in the order they were made, once they are known. */
export const releasesOf = (state: RootState, design: string): readonly Release[] =>
  releasesApi.endpoints.listReleases.select(design)(state).data ?? NONE;
