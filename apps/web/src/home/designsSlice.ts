import { createAsyncThunk, createSlice } from '@reduxjs/toolkit';
import { api, ApiError } from '../app/api/client.js';
import type { DesignSummary, ProblemBody, Sample } from '@isomeros/api';

export interface DesignsState {
  readonly items: readonly DesignSummary[] | null;
  readonly samples: readonly Sample[];
  readonly problem: ProblemBody | null;
}

const initialState: DesignsState = { items: null, samples: [], problem: null };

export const loadDesigns = createAsyncThunk<
  { items: readonly DesignSummary[]; samples: readonly Sample[] },
  undefined,
  { rejectValue: ProblemBody }
>('designs/load', async (_none, { rejectWithValue }) => {
  try {
    const [items, samples] = await Promise.all([api.listDesigns(), api.listSamples()]);
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
      .addCase(loadDesigns.fulfilled, (_state, { payload }) => ({ ...payload, problem: null }))
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
