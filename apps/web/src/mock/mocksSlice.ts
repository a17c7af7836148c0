import type { Progress } from '@isomeros/core/model';
import { createAsyncThunk, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { api } from '../app/api/client.js';
import type { ExchangeSummary, Mock } from '@isomeros/api';

export interface MocksState {
  readonly byId: Readonly<Record<string, Mock>>;
  readonly loaded: boolean;
  /** The latest exchanges of each mock that is followed, oldest first. */
  readonly exchanges: Readonly<Record<string, readonly ExchangeSummary[]>>;
  /** What somebody wants to look at, as long as the arrangement is the one that was looked at then. */
  readonly chosen: { readonly endpoint: string; readonly arrangement: string } | null;
  /** How far a large write of a mock is. */
  readonly progress: Readonly<Record<string, Progress>>;
}

const initialState: MocksState = { byId: {}, loaded: false, exchanges: {}, chosen: null, progress: {} };

/** Exchanges kept in the page; the journal on the server holds more. */
const MOST_KEPT = 2_000;

export const loadMocks = createAsyncThunk('mocks/load', () => api.listMocks());

const slice = createSlice({
  name: 'mocks',
  initialState,
  reducers: {
    mockChanged: (state, { payload }: PayloadAction<Mock>) => {
      const known = state.exchanges[payload.id] ?? [];
      const restarted = (known.at(-1)?.number ?? 0) > payload.exchanges;
      return {
        ...state,
        byId: { ...state.byId, [payload.id]: payload },
        exchanges: restarted ? { ...state.exchanges, [payload.id]: [] } : state.exchanges,
      };
    },
    endpointChosen: (
      state,
      { payload }: PayloadAction<{ readonly endpoint: string; readonly arrangement: string }>,
    ) => ({ ...state, chosen: payload }),
    progressMade: (state, { payload }: PayloadAction<{ mock: string; progress: Progress }>) => ({
      ...state,
      progress: { ...state.progress, [payload.mock]: payload.progress },
    }),
    mockRemoved: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      byId: Object.fromEntries(Object.entries(state.byId).filter(([id]) => id !== payload)),
    }),
    exchangesArrived: (
      state,
      { payload }: PayloadAction<{ mock: string; exchanges: readonly ExchangeSummary[] }>,
    ) => {
      const { mock, exchanges } = payload;
      const merged = mergeByNumber(state.exchanges[mock] ?? [], exchanges);
      const known = state.byId[mock];
      const count = Math.max(known?.exchanges ?? 0, merged.at(-1)?.number ?? 0);
      return {
        ...state,
        byId: known === undefined ? state.byId : { ...state.byId, [mock]: { ...known, exchanges: count } },
        exchanges: { ...state.exchanges, [mock]: merged.slice(-MOST_KEPT) },
      };
    },
  },
  extraReducers: (builder) => {
    builder.addCase(loadMocks.fulfilled, (state, { payload }) => ({
      ...state,
      loaded: true,
      byId: Object.fromEntries(payload.map((mock) => [mock.id, mock])),
    }));
  },
});

/** Two runs of exchanges as one, in order, each number once. */
export function mergeByNumber(
  known: readonly ExchangeSummary[],
  arrived: readonly ExchangeSummary[],
): readonly ExchangeSummary[] {
  const last = known.at(-1)?.number ?? 0;
  if (arrived.every(({ number }, index) => number > (arrived[index - 1]?.number ?? last)))
    return [...known, ...arrived];
  const all = new Map([...known, ...arrived].map((exchange) => [exchange.number, exchange]));
  return [...all.values()].sort((a, b) => a.number - b.number);
}

export const { endpointChosen, mockChanged, mockRemoved, exchangesArrived, progressMade } = slice.actions;
export const mocksReducer = slice.reducer;
