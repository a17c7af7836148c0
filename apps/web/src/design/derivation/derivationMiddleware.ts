import { createListenerMiddleware, isAnyOf, type Middleware } from '@reduxjs/toolkit';
import { derivationFailed, derivedArrived, reviewArrived, type DerivedState } from '../derivedSlice.js';
import { designChanged, edited, openDesign, savedDesign, type DocumentState } from '../documentSlice.js';
import { arrangementChosen, arrangementName, type ViewState } from '../viewSlice.js';
import type { DerivationService } from './service.js';

interface State {
  readonly document: DocumentState;
  readonly derived: DerivedState;
  readonly view: ViewState;
}

/** Derives after everything a contract follows from. */
export function derivationMiddleware(derivation: Pick<DerivationService, 'derive'>): Middleware {
  const listening = createListenerMiddleware<State>();
  listening.startListening({
    matcher: isAnyOf(edited, arrangementChosen, designChanged, openDesign.fulfilled, savedDesign),
    effect: (_action, api) => {
      const state = api.getState();
      const { text, choices, design } = state.document;
      if (design === null) return;
      const { identities, validText } = design;
      const tell =
        <T>(act: (told: T) => Parameters<typeof api.dispatch>[0]) =>
        (told: T): void => {
          if (api.getState().document.design?.id === design.id) api.dispatch(act(told));
        };
      derivation.derive(
        { design: design.id, text, identities, validText, choices, arrangement: arrangementName(state) },
        {
          onDerived: tell(derivedArrived),
          onReviewed: tell(reviewArrived),
          onFailed: tell(derivationFailed),
        },
      );
    },
  });
  return listening.middleware;
}
