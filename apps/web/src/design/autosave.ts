import { createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { derivationClient } from './derivationClient.js';
import {
  arrangementChosen,
  choicesMade,
  choicesRedone,
  choicesUndone,
  derivedArrived,
  designChanged,
  mineKept,
  nothingToKeep,
  openDesign,
  reviewArrived,
  sameChoices,
  saveChoices,
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
export const autosaveMiddleware = createListenerMiddleware<RootWithDesign>();

autosaveMiddleware.startListening({
  matcher: isAnyOf(
    textEdited,
    choicesMade,
    choicesUndone,
    choicesRedone,
    arrangementChosen,
    designChanged,
    openDesign.fulfilled,
    saveText.fulfilled,
    saveChoices.fulfilled,
  ),
  effect: (_action, api) => {
    const { text, choices, arrangement, design } = api.getState().design;
    if (design === null) return;
    const { identities, validText } = design;
    const isOpen = (): boolean => api.getState().design.design?.id === design.id;
    derivationClient.derive(
      { design: design.id, text, identities, validText, choices, arrangement },
      {
        onDerived: (derived) => {
          if (isOpen()) api.dispatch(derivedArrived(derived));
        },
        onReviewed: (reviewed) => {
          if (isOpen()) api.dispatch(reviewArrived(reviewed));
        },
      },
    );
  },
});

autosaveMiddleware.startListening({
  matcher: isAnyOf(
    textEdited,
    choicesMade,
    choicesUndone,
    choicesRedone,
    mineKept,
    designChanged,
    saveText.rejected,
    saveChoices.rejected,
  ),
  effect: async (action, api) => {
    api.cancelActiveListeners();
    const again = saveText.rejected.match(action) || saveChoices.rejected.match(action);
    await api.delay(again ? TRY_AGAIN_MS : QUIET_MS);
    const isSaving = (): boolean => api.getState().design.keeping.kind === 'saving';
    if (isSaving()) await api.condition(() => !isSaving());
    for (;;) {
      const { design, text, choices, keeping } = api.getState().design;
      if (design === null || keeping.kind === 'conflict') return;
      const { id, revision } = design;
      if (text !== design.text) await api.dispatch(saveText({ id, text, revision }));
      else if (!sameChoices(choices, design.choices))
        await api.dispatch(saveChoices({ id, choices, revision }));
      else {
        if (keeping.kind !== 'kept') api.dispatch(nothingToKeep());
        return;
      }
      // A newer edit has begun another round by now, which waits for this save.
      if (api.signal.aborted || api.getState().design.keeping.kind === 'failed') return;
    }
  },
});
