import { createSelector, createSlice, isAnyOf } from '@reduxjs/toolkit';
import type { ProblemBody } from '@isomeros/api';
import { designApi } from './designApi.js';
import { unexpected } from '../app/api/client.js';
import {
  designChanged,
  edited,
  isSaved,
  conflictOverruled,
  openDesign,
  savedDesign,
  type DocumentState,
} from './documentSlice.js';

export interface SavingState {
  /** The design that is saved. */
  readonly design: string | null;
  /** Whether the server was asked and has not answered yet. */
  readonly isAsked: boolean;
  /** Why the server did not take what it was asked last. */
  readonly problem: ProblemBody | null;
  /** When it last took something. */
  readonly at: string;
}

const initialState: SavingState = { design: null, isAsked: false, problem: null, at: '' };

const { saveModel, saveChoices } = designApi.endpoints;
const saving = isAnyOf(saveModel.matchPending, saveChoices.matchPending);
/** The server did not take what was written. */
export const saveRefused = isAnyOf(saveModel.matchRejected, saveChoices.matchRejected);

/** Somebody else saved meanwhile: the revision that was written for is not the latest any more (RFC 9110 §15.5.13). */
const isConflict = (problem: ProblemBody | null): boolean => problem?.status === 412;

const now = (): string => new Date().toISOString();

const slice = createSlice({
  name: 'saving',
  initialState,
  reducers: {},
  extraReducers: (builder) => {
    builder
      .addCase(openDesign.pending, (state, { meta }) =>
        state.design === meta.arg ? state : { ...initialState, design: meta.arg },
      )
      .addCase(openDesign.fulfilled, (state, { payload }) =>
        state.design === payload.id ? { ...state, problem: null, at: payload.changedAt } : state,
      )
      .addCase(designChanged, (state) => ({ ...state, problem: null, at: now() }))
      .addCase(conflictOverruled, (state) => ({ ...state, problem: null }))
      .addMatcher(edited, (state) => (isConflict(state.problem) ? state : { ...state, problem: null }))
      .addMatcher(saving, (state) => ({ ...state, isAsked: true }))
      .addMatcher(savedDesign, (state, { payload }) =>
        state.design === payload.id ? { ...state, isAsked: false, problem: null, at: now() } : state,
      )
      .addMatcher(saveRefused, (state, { payload, meta }) =>
        state.design === meta.arg.originalArgs.id
          ? { ...state, isAsked: false, problem: unexpected(payload) }
          : state,
      );
  },
});

export const savingReducer = slice.reducer;

/** Where what is on screen stands against what the server has. */
export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly problem: ProblemBody }
  /** Somebody else saved meanwhile. */
  | { readonly kind: 'conflict' };

interface Saved {
  readonly document: DocumentState;
  readonly saving: SavingState;
}

export const saveStateOf: (state: Saved) => SaveState = createSelector(
  ({ saving: { isAsked } }: Saved) => isAsked,
  ({ saving: { problem } }: Saved) => problem,
  ({ saving: { at } }: Saved) => at,
  ({ document: { design } }: Saved) => design === null,
  ({ document }: Saved) => isSaved(document),
  (isAsked, problem, at, isClosed, isAllSaved): SaveState => {
    if (isConflict(problem)) return { kind: 'conflict' };
    if (isAsked) return { kind: 'saving' };
    if (problem !== null) return { kind: 'failed', problem };
    return isClosed || isAllSaved ? { kind: 'saved', at } : { kind: 'waiting' };
  },
);
