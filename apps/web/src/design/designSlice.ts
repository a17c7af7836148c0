import { createAsyncThunk, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Contract } from '@isomeros/core/contract';
import { api, ApiError } from '../app/api/client.js';
import type { Design, DesignFigures, Problem } from '../app/api/types.js';
import type { Derived } from './workerMessages.js';

/** Where the text on screen stands against the text on the server. */
export type Keeping =
  | { readonly kind: 'kept'; readonly at: string }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly problem: Problem }
  /** Somebody else saved meanwhile. */
  | { readonly kind: 'conflict' };

export interface DesignState {
  /** The design that is asked for; what is shown may still be loading. */
  readonly id: string | null;
  readonly design: Design | null;
  readonly problem: Problem | null;
  readonly text: string;
  readonly keeping: Keeping;
  readonly derived: Derived | null;
  /** The contract of the last text without errors. */
  readonly contract: Contract | null;
  readonly figures: DesignFigures | null;
  /** Paths there were when the design was opened, to mark those that are new. */
  readonly knownPaths: readonly string[] | null;
}

const initialState: DesignState = {
  id: null,
  design: null,
  problem: null,
  text: '',
  keeping: { kind: 'kept', at: '' },
  derived: null,
  contract: null,
  figures: null,
  knownPaths: null,
};

export const openDesign = createAsyncThunk<Design, string, { rejectValue: Problem }>(
  'design/open',
  async (id, { rejectWithValue }) => {
    try {
      return await api.readDesign(id);
    } catch (error) {
      if (error instanceof ApiError) return rejectWithValue(error.problem);
      throw error;
    }
  },
);

interface SaveArguments {
  readonly id: string;
  readonly text: string;
  readonly revision: number;
}

export const saveText = createAsyncThunk<Design, SaveArguments, { rejectValue: Problem }>(
  'design/save',
  async ({ id, text, revision }, { rejectWithValue }) => {
    try {
      return await api.saveModel(id, text, revision);
    } catch (error) {
      if (error instanceof ApiError) return rejectWithValue(error.problem);
      throw error;
    }
  },
);

const now = (): string => new Date().toISOString();

const slice = createSlice({
  name: 'design',
  initialState,
  reducers: {
    textEdited: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      text: payload,
      keeping:
        state.keeping.kind === 'saving' || state.keeping.kind === 'conflict'
          ? state.keeping
          : ({ kind: 'waiting' } as const),
    }),
    derivedArrived: (state, { payload }: PayloadAction<Derived>) => {
      const contract = payload.contract ?? state.contract;
      return {
        ...state,
        derived: payload,
        contract,
        figures: payload.figures ?? state.figures,
        knownPaths: state.knownPaths ?? payload.contract?.resources.map(({ path }) => path) ?? null,
      };
    },
    /** The text on screen is the one that was saved: an edit was taken back. */
    nothingToKeep: (state) => ({ ...state, keeping: { kind: 'kept', at: now() } as const }),
    /** After a conflict: the text on screen is to be saved over what somebody else saved. */
    mineKept: (state, { payload }: PayloadAction<Design>) => ({
      ...state,
      design: payload,
      keeping: { kind: 'waiting' } as const,
    }),
  },
  extraReducers: (builder) => {
    builder
      .addCase(openDesign.pending, (state, { meta }) =>
        state.id === meta.arg ? { ...state, problem: null } : { ...initialState, id: meta.arg },
      )
      .addCase(openDesign.fulfilled, (state, { payload }) =>
        state.id === payload.id
          ? {
              ...state,
              design: payload,
              text: payload.text,
              keeping: { kind: 'kept', at: payload.changedAt } as const,
            }
          : state,
      )
      .addCase(openDesign.rejected, (state, { payload, error }) => ({
        ...state,
        problem: payload ?? unexpected(error.message),
      }))
      .addCase(saveText.pending, (state) => ({ ...state, keeping: { kind: 'saving' } as const }))
      .addCase(saveText.fulfilled, (state, { payload, meta }) => {
        if (state.design?.id !== payload.id) return state;
        const keeping: Keeping =
          state.text === meta.arg.text ? { kind: 'kept', at: now() } : { kind: 'waiting' };
        return { ...state, design: payload, keeping };
      })
      .addCase(saveText.rejected, (state, { payload, error }) => {
        if (payload?.status === 412) return { ...state, keeping: { kind: 'conflict' } as const };
        return {
          ...state,
          keeping: { kind: 'failed', problem: payload ?? unexpected(error.message) } as const,
        };
      });
  },
});

const unexpected = (detail: string | undefined): Problem => ({
  type: 'about:blank',
  title: 'Something went wrong',
  status: 0,
  detail: detail ?? 'Something went wrong.',
});

export const { textEdited, derivedArrived, nothingToKeep, mineKept } = slice.actions;
export const designReducer = slice.reducer;
