import {
  createListenerMiddleware,
  isAnyOf,
  type Middleware,
  type ThunkDispatch,
  type UnknownAction,
} from '@reduxjs/toolkit';
import { designApi } from './designApi.js';
import {
  designChanged,
  edited,
  conflictOverruled,
  sameChoices,
  type DocumentState,
} from './documentSlice.js';
import { saveRefused, saveStateOf, type SavingState } from './savingSlice.js';

const QUIET_MS = 500;
const TRY_AGAIN_MS = 3_000;

interface State {
  readonly document: DocumentState;
  readonly saving: SavingState;
}

/** Saves once the typing pauses, and tries again where the server did not take it. */
export function autosaveMiddleware(): Middleware {
  const listening = createListenerMiddleware<State, ThunkDispatch<State, unknown, UnknownAction>>();
  const { saveModel, saveChoices } = designApi.endpoints;
  listening.startListening({
    matcher: isAnyOf(edited, conflictOverruled, designChanged, saveRefused),
    effect: async (action, api) => {
      api.cancelActiveListeners();
      await api.delay(saveRefused(action) ? TRY_AGAIN_MS : QUIET_MS);
      const keeping = (): string => saveStateOf(api.getState()).kind;
      if (keeping() === 'saving') await api.condition(() => keeping() !== 'saving');
      for (;;) {
        const { design, text, choices } = api.getState().document;
        if (design === null || keeping() === 'conflict') return;
        const { id, revision } = design;
        const asked = { track: false };
        if (text !== design.text) await api.dispatch(saveModel.initiate({ id, text, revision }, asked));
        else if (!sameChoices(choices, design.choices))
          await api.dispatch(saveChoices.initiate({ id, choices, revision }, asked));
        else return;
        // A newer edit has begun another round by now, which waits for this save.
        if (api.signal.aborted || keeping() === 'failed') return;
      }
    },
  });
  return listening.middleware;
}
