import { createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { derivationClient } from './derivationClient.js';
import {
  derivedArrived,
  mineKept,
  nothingToKeep,
  openDesign,
  saveText,
  textEdited,
  type DesignState,
} from './designSlice.js';

const QUIET_MS = 500;
const TRY_AGAIN_MS = 3_000;

interface RootWithDesign {
  readonly design: DesignState;
}

/** Derives after every edit, and saves once the typing pauses. */
export const keepingMiddleware = createListenerMiddleware<RootWithDesign>();

keepingMiddleware.startListening({
  matcher: isAnyOf(textEdited, openDesign.fulfilled, saveText.fulfilled),
  effect: (_action, api) => {
    const { text, design } = api.getState().design;
    if (design === null) return;
    const { identities, soundText } = design;
    derivationClient.derive({ design: design.id, text, identities, soundText }, (derived) => {
      if (api.getState().design.design?.id === design.id) api.dispatch(derivedArrived(derived));
    });
  },
});

keepingMiddleware.startListening({
  matcher: isAnyOf(textEdited, mineKept, saveText.rejected),
  effect: async (action, api) => {
    api.cancelActiveListeners();
    await api.delay(saveText.rejected.match(action) ? TRY_AGAIN_MS : QUIET_MS);
    const isSaving = (): boolean => api.getState().design.keeping.kind === 'saving';
    if (isSaving()) await api.condition(() => !isSaving());
    const { design, text, keeping } = api.getState().design;
    if (design === null || keeping.kind === 'conflict') return;
    if (text === design.text) api.dispatch(nothingToKeep());
    else await api.dispatch(saveText({ id: design.id, text, revision: design.revision }));
  },
});
