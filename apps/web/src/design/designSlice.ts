import { createAsyncThunk, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { findArrangement, NO_CHOICES, type Choices } from '@isomeros/core/arrangement';
import type { Contract, Outline } from '@isomeros/core/contract';
import { sameJson, type Json } from '@isomeros/core/model';
import { api, ApiError } from '../app/api/client.js';
import type { Design, DesignFigures, ProblemBody } from '@isomeros/api';
import type { Derived, Reviewed } from './workerMessages.js';

/** Where the text on screen stands against the text on the server. */
export type SaveState =
  | { readonly kind: 'kept'; readonly at: string }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'failed'; readonly problem: ProblemBody }
  /** Somebody else saved meanwhile. */
  | { readonly kind: 'conflict' };

export interface DesignState {
  /** The design that is asked for; what is shown may still be loading. */
  readonly id: string | null;
  readonly design: Design | null;
  readonly problem: ProblemBody | null;
  readonly text: string;
  /** What was decided besides the text, kept or not yet. */
  readonly choices: Choices;
  /** Choices that can be gone back to, and forward again, latest last. */
  readonly past: readonly Choices[];
  readonly future: readonly Choices[];
  /** The name of the arrangement that is looked at. */
  readonly arrangement: string;
  readonly keeping: SaveState;
  readonly derived: Derived | null;
  /** The outline of the contract of the last text without errors. */
  readonly outline: Outline | null;
  /** What is found and assumed in it; follows the outline a moment later. */
  readonly reviewed: Reviewed | null;
  /** That contract as a whole, where a page asked for it, and the outline it belongs to. */
  readonly contract: { readonly whole: Contract; readonly outline: Outline } | null;
  readonly figures: DesignFigures | null;
  /** Paths there were when the design was opened, to mark those that are new. */
  readonly knownPaths: readonly string[] | null;
}

const initialState: DesignState = {
  id: null,
  design: null,
  problem: null,
  text: '',
  choices: NO_CHOICES,
  past: [],
  future: [],
  arrangement: '',
  keeping: { kind: 'kept', at: '' },
  derived: null,
  outline: null,
  reviewed: null,
  contract: null,
  figures: null,
  knownPaths: null,
};

export const openDesign = createAsyncThunk<Design, string, { rejectValue: ProblemBody }>(
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

export const saveChoices = createAsyncThunk<
  Design,
  { readonly id: string; readonly choices: Choices; readonly revision: number },
  { rejectValue: ProblemBody }
>('design/saveChoices', async ({ id, choices, revision }, { rejectWithValue }) => {
  try {
    return await api.saveChoices(id, choices, revision);
  } catch (error) {
    if (error instanceof ApiError) return rejectWithValue(error.problem);
    throw error;
  }
});

interface SaveArguments {
  readonly id: string;
  readonly text: string;
  readonly revision: number;
}

export const saveText = createAsyncThunk<Design, SaveArguments, { rejectValue: ProblemBody }>(
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

/** Whether everything on screen is what the server has. */
export const isSaved = ({ design, text, choices }: DesignState): boolean =>
  design !== null && text === design.text && sameChoices(choices, design.choices);

/** In whatever order their members stand: the server gives them back in its own. */
export const sameChoices = (a: Choices, b: Choices): boolean =>
  a === b || sameJson(a as unknown as Json, b as unknown as Json);

/** An edit waits to be saved, unless a save is under way or a conflict is to be settled first. */
const waiting = (keeping: SaveState): SaveState =>
  keeping.kind === 'saving' || keeping.kind === 'conflict' ? keeping : { kind: 'waiting' };

const failed = (payload: ProblemBody | undefined, message: string | undefined): SaveState =>
  payload?.status === 412
    ? { kind: 'conflict' }
    : { kind: 'failed', problem: payload ?? unexpected(message) };

/** The state after the server took a change. */
function saved(state: DesignState, design: Design): DesignState {
  if (state.design?.id !== design.id) return state;
  const next = { ...state, design };
  return { ...next, keeping: isSaved(next) ? { kind: 'kept', at: now() } : { kind: 'waiting' } };
}

/** So many steps can be taken back. */
const MOST_STEPS = 100;

/** Choices that came from the server, with an arrangement to look at that is among them. */
function chosen(
  { arrangement, choices }: DesignState,
  next: Choices,
): Pick<DesignState, 'choices' | 'past' | 'future' | 'arrangement'> | Pick<DesignState, 'choices'> {
  if (sameChoices(choices, next) && arrangement !== '') return { choices: next };
  return { choices: next, past: [], future: [], arrangement: lookedAt(arrangement, next) };
}

const lookedAt = (name: string, choices: Choices): string =>
  findArrangement(choices, name) === undefined ? (choices.arrangements[0]?.name ?? '') : name;

const decided = (
  state: DesignState,
  choices: Choices,
  past: readonly Choices[],
  future: readonly Choices[],
): DesignState => ({
  ...state,
  choices,
  past,
  future,
  arrangement: lookedAt(state.arrangement, choices),
  keeping: waiting(state.keeping),
});

const slice = createSlice({
  name: 'design',
  initialState,
  reducers: {
    textEdited: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      text: payload,
      keeping: waiting(state.keeping),
    }),
    choicesMade: (state, { payload }: PayloadAction<Choices>) =>
      decided(state, payload, [...state.past, state.choices].slice(-MOST_STEPS), []),
    choicesUndone: (state) => {
      const last = state.past.at(-1);
      return last === undefined
        ? state
        : decided(state, last, state.past.slice(0, -1), [...state.future, state.choices]);
    },
    choicesRedone: (state) => {
      const next = state.future.at(-1);
      return next === undefined
        ? state
        : decided(state, next, [...state.past, state.choices], state.future.slice(0, -1));
    },
    arrangementChosen: (state, { payload }: PayloadAction<string>) => ({
      ...state,
      arrangement: payload,
      knownPaths: null,
    }),
    /** The server changed the design at the request of this page; edits since are still to be saved. */
    designChanged: (state, { payload }: PayloadAction<Design>) => {
      const untouched = isSaved(state);
      const next = { ...state, design: payload };
      return untouched
        ? {
            ...next,
            ...chosen(next, payload.choices),
            text: payload.text,
            keeping: { kind: 'kept', at: now() } as const,
          }
        : { ...next, keeping: { kind: 'waiting' } as const };
    },
    derivedArrived: (state, { payload }: PayloadAction<Derived>) => {
      const outline = payload.outline ?? state.outline;
      return {
        ...state,
        derived: payload,
        outline,
        knownPaths: state.knownPaths ?? payload.outline?.resources.map(({ path }) => path) ?? null,
      };
    },
    reviewArrived: (state, { payload }: PayloadAction<Reviewed>) => ({
      ...state,
      reviewed: payload,
      figures: payload.figures,
    }),
    contractArrived: (
      state,
      { payload }: PayloadAction<{ readonly whole: Contract; readonly outline: Outline }>,
    ) => ({ ...state, contract: payload }),
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
              ...chosen(state, payload.choices),
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
      .addCase(saveChoices.pending, (state) => ({ ...state, keeping: { kind: 'saving' } as const }))
      .addCase(saveText.fulfilled, (state, { payload }) => saved(state, payload))
      .addCase(saveChoices.fulfilled, (state, { payload }) => saved(state, payload))
      .addCase(saveText.rejected, (state, { payload, error }) => ({
        ...state,
        keeping: failed(payload, error.message),
      }))
      .addCase(saveChoices.rejected, (state, { payload, error }) => ({
        ...state,
        keeping: failed(payload, error.message),
      }));
  },
});

const unexpected = (detail: string | undefined): ProblemBody => ({
  type: 'about:blank',
  title: 'Something went wrong',
  status: 0,
  detail: detail ?? 'Something went wrong.',
});

export const {
  textEdited,
  choicesMade,
  choicesUndone,
  choicesRedone,
  arrangementChosen,
  designChanged,
  derivedArrived,
  contractArrived,
  reviewArrived,
  nothingToKeep,
  mineKept,
} = slice.actions;
export const designReducer = slice.reducer;
