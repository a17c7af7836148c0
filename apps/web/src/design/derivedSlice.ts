import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Contract, Outline } from '@isomeros/core/contract';
import { openDesign } from './documentSlice.js';
import type { Derived } from './derivation/service.js';
import type { ReadText, Review } from './derivation/protocol.js';

/** What follows from the design that is worked on. */
export interface DerivedState {
  /** The design it follows from. */
  readonly design: string | null;
  /** What was read of the text as it stands. */
  readonly reading: ReadText | null;
  /** The outline of the contract of the last text without errors. */
  readonly outline: Outline | null;
  /** What is found and assumed in it; follows the outline a moment later. */
  readonly review: Review | null;
  /** That contract as a whole, where a page asked for it, and the outline it belongs to. */
  readonly contract: { readonly whole: Contract; readonly outline: Outline } | null;
  /** Why the last text could not be derived from, where something went wrong inside. */
  readonly failure: string | null;
}

const initialState: DerivedState = {
  design: null,
  reading: null,
  outline: null,
  review: null,
  contract: null,
  failure: null,
};

const slice = createSlice({
  name: 'derived',
  initialState,
  reducers: {
    derivedArrived: (state, { payload }: PayloadAction<Derived>) => ({
      ...state,
      reading: payload.reading,
      outline: payload.outline ?? state.outline,
      failure: null,
    }),
    reviewArrived: (state, { payload }: PayloadAction<Review>) => ({
      ...state,
      review: payload,
      failure: null,
    }),
    contractArrived: (
      state,
      { payload }: PayloadAction<{ readonly whole: Contract; readonly outline: Outline }>,
    ) => ({ ...state, contract: payload }),
    derivationFailed: (state, { payload }: PayloadAction<string>) => ({ ...state, failure: payload }),
  },
  extraReducers: (builder) => {
    builder.addCase(openDesign.pending, (state, { meta }) =>
      state.design === meta.arg ? state : { ...initialState, design: meta.arg },
    );
  },
});

export const { derivedArrived, reviewArrived, contractArrived, derivationFailed } = slice.actions;
export const derivedReducer = slice.reducer;
