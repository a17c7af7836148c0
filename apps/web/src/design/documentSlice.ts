import { createAsyncThunk, createSlice, isAnyOf, type PayloadAction } from '@reduxjs/toolkit';
import { NO_CHOICES, type Choices } from '@isomeros/core/arrangement';
import { sameJson, type Json } from '@isomeros/core/model';
import type { Design, ProblemBody } from '@isomeros/api';
import { designApi } from './designApi.js';
import { unexpected } from '../app/api/client.js';

/** The design that is worked on: as the server has it, and as it is written here. */
export interface DocumentState {
  /** The design that is asked for; what is shown may still be loading. */
  readonly id: string | null;
  /** As the server has it. */
  readonly design: Design | null;
  /** Why it could not be opened. */
  readonly problem: ProblemBody | null;
  readonly text: string;
  /** What was decided besides the text, saved or not yet. */
  readonly choices: Choices;
  /** Choices that can be gone back to, and forward again, latest last. */
  readonly past: readonly Choices[];
  readonly future: readonly Choices[];
}

const initialState: DocumentState = {
  id: null,
  design: null,
  problem: null,
  text: '',
  choices: NO_CHOICES,
  past: [],
  future: [],
};

export const openDesign = createAsyncThunk<Design, string, { rejectValue: ProblemBody }>(
  'document/open',
  async (id, { dispatch, rejectWithValue }) => {
    const asked = designApi.endpoints.readDesign.initiate(id, { forceRefetch: true, subscribe: false });
    const { data, error } = await dispatch(asked);
    return data ?? rejectWithValue(unexpected(error));
  },
);

/** Whether everything on screen is what the server has. */
export const isSaved = ({
  design,
  text,
  choices,
}: Pick<DocumentState, 'design' | 'text' | 'choices'>): boolean =>
  design !== null && text === design.text && sameChoices(choices, design.choices);

/** In whatever order their members stand: the server gives them back in its own. */
export const sameChoices = (a: Choices, b: Choices): boolean =>
  a === b || sameJson(a as unknown as Json, b as unknown as Json);

/** So many steps can be taken back. */
const MOST_STEPS = 100;

/** What the server has, in place of what is on screen; steps can be taken back where nothing else was decided. */
function shown(state: DocumentState, design: Design): DocumentState {
  const { text, choices } = design;
  const next = { ...state, design, text, choices };
  return sameChoices(state.choices, choices) ? next : { ...next, past: [], future: [] };
}

const slice = createSlice({
  name: 'document',
  initialState,
  reducers: {
    textEdited: (state, { payload }: PayloadAction<string>) => ({ ...state, text: payload }),
    choicesMade: (state, { payload }: PayloadAction<Choices>) => ({
      ...state,
      choices: payload,
      past: [...state.past, state.choices].slice(-MOST_STEPS),
      future: [],
    }),
    choicesUndone: (state) => {
      const choices = state.past.at(-1);
      return choices === undefined
        ? state
        : { ...state, choices, past: state.past.slice(0, -1), future: [...state.future, state.choices] };
    },
    choicesRedone: (state) => {
      const choices = state.future.at(-1);
      return choices === undefined
        ? state
        : { ...state, choices, past: [...state.past, state.choices], future: state.future.slice(0, -1) };
    },
    /** The server changed the design at the request of this page; edits since are still to be saved. */
    designChanged: (state, { payload }: PayloadAction<Design>) =>
      isSaved(state) ? shown(state, payload) : { ...state, design: payload },
    /** After a conflict: what is on screen is to be saved over what somebody else saved. */
    conflictOverruled: (state, { payload }: PayloadAction<Design>) => ({ ...state, design: payload }),
  },
  extraReducers: (builder) => {
    builder
      .addCase(openDesign.pending, (state, { meta }) =>
        state.id === meta.arg ? { ...state, problem: null } : { ...initialState, id: meta.arg },
      )
      .addCase(openDesign.fulfilled, (state, { payload }) =>
        state.id === payload.id ? shown(state, payload) : state,
      )
      .addCase(openDesign.rejected, (state, { payload, meta }) =>
        state.id === meta.arg ? { ...state, problem: unexpected(payload) } : state,
      )
      .addMatcher(savedDesign, (state, { payload }) =>
        state.design?.id === payload.id ? { ...state, design: payload } : state,
      );
  },
});

const { saveModel, saveChoices } = designApi.endpoints;
/** The server took what was written. */
export const savedDesign = isAnyOf(saveModel.matchFulfilled, saveChoices.matchFulfilled);

export const { textEdited, choicesMade, choicesUndone, choicesRedone, designChanged, conflictOverruled } =
  slice.actions;
export const documentReducer = slice.reducer;
/** Something was written or decided here. */
export const edited = isAnyOf(textEdited, choicesMade, choicesUndone, choicesRedone);
