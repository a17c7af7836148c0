import { findArrangement } from '@isomeros/core/arrangement';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { openDesign, type DocumentState } from './documentSlice.js';
import { derivedArrived } from './derivedSlice.js';

/** The map's point at the upper left, and how many pixels one of its units takes. */
export interface MapView {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

/** What of the design is looked at. */
export interface ViewState {
  readonly design: string | null;
  /** The name of the arrangement that was chosen last; it may be gone. */
  readonly arrangement: string;
  /** Paths there were when the arrangement was looked at first, to mark those that are new. */
  readonly knownPaths: readonly string[] | null;
  /** What was seen of the map when it was left; `null` is all of it. */
  readonly map: MapView | null;
  /** The endpoint of a mock somebody wants to look at, as long as the arrangement is the one that was looked at then. */
  readonly endpoint: { readonly endpoint: string; readonly arrangement: string } | null;
}

const initialState: ViewState = {
  design: null,
  arrangement: '',
  knownPaths: null,
  map: null,
  endpoint: null,
};

const slice = createSlice({
  name: 'view',
  initialState,
  reducers: {
    arrangementChosen: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      arrangement: payload,
      knownPaths: null,
    }),
    mapLeft: (state, { payload }: PayloadAction<MapView | null>) => ({ ...state, map: payload }),
    endpointChosen: (
      state,
      { payload }: PayloadAction<{ readonly endpoint: string; readonly arrangement: string }>,
    ) => ({ ...state, endpoint: payload }),
  },
  extraReducers: (builder) => {
    builder
      .addCase(openDesign.pending, (state, { meta }) =>
        state.design === meta.arg ? state : { ...initialState, design: meta.arg },
      )
      .addCase(derivedArrived, (state, { payload: { outline } }) =>
        outline === null || state.knownPaths !== null
          ? state
          : { ...state, knownPaths: outline.resources.map(({ path }) => path) },
      );
  },
});

export const { arrangementChosen, mapLeft, endpointChosen } = slice.actions;
export const viewReducer = slice.reducer;

/** The name of the arrangement that is looked at: the one that was chosen, while it is there. */
export function arrangementName({
  document: { choices },
  view: { arrangement },
}: {
  readonly document: Pick<DocumentState, 'choices'>;
  readonly view: Pick<ViewState, 'arrangement'>;
}): string {
  return findArrangement(choices, arrangement) === undefined
    ? (choices.arrangements[0]?.name ?? '')
    : arrangement;
}
