import { createSelector } from '@reduxjs/toolkit';
import type { Mock } from '@isomeros/api';
import { mocksApi } from './mocksApi.js';
import type { RootState } from '../app/store.js';

const NONE: readonly Mock[] = [];

/** Every mock there is, once it is known. */
export const mocks = (state: RootState): readonly Mock[] =>
  mocksApi.endpoints.listMocks.select(null)(state).data ?? NONE;

/** The mocks of a design. */
export const mocksOf: (state: RootState, design: string) => readonly Mock[] = createSelector(
  mocks,
  (_state: RootState, design: string) => design,
  (all, design) => all.filter((mock) => mock.design === design),
);
