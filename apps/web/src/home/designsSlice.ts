import { createAsyncThunk, createSlice } from '@reduxjs/toolkit';
import { api, ApiError } from '../app/api/client.js';
import type { DesignSummary, ProblemBody, Sample } from '@isomeros/api';

export interface DesignsState {
  readonly items: readonly DesignSummary[] | null;
  readonly samples: readonly Sample[];
  readonly problem: ProblemBody | null;
  /** What the latest list was asked for by: an earlier one may arrive later. */
  readonly request: string;
}

const initialState: DesignsState = { items: null, samples: [], problem: null, request: '' };

/** Lists the designs of which the name holds a text; the empty text is in all. */
export const loadDesigns = createAsyncThunk<
  { items: readonly DesignSummary[]; samples: readonly Sample[] },
  string,
  { rejectValue: ProblemBody }
>('designs/load', async (name, { rejectWithValue }) => {
  try {
    const [items, samples] = await Promise.all([api.listDesigns(name), api.listSamples()]);
    return { items, samples };
  } catch (error) {
    if (error instanceof ApiError) return rejectWithValue(error.problem);
    throw error;
  }
});

const slice = createSlice({
  name: 'designs',
  initialState,
  reducers: {},
  extraReducers: (builder) => {
    builder
      .addCase(loadDesigns.pending, (state, { meta }) => ({ ...state, request: meta.requestId }))
      .addCase(loadDesigns.fulfilled, (state, { payload, meta }) =>
        state.request === meta.requestId ? { ...state, ...payload, problem: null } : state,
      )
      .addCase(loadDesigns.rejected, (state, { payload, error }) => ({
        ...state,
        problem: payload ?? {
          type: 'about:blank',
          title: 'Something went wrong',
          status: 0,
          detail: error.message ?? '',
        },
      }));
  },
});

export const designsReducer = slice.reducer;
