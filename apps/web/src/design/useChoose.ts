import type { Choices } from '@isomeros/core/arrangement';
import { useCallback } from 'react';
import { useAppDispatch, useAppStore } from '../app/store.js';
import { choicesMade } from './documentSlice.js';
import { arrangementName } from './viewSlice.js';

/** Other choices in place of those there are, for the arrangement that is looked at. */
export type ChangeChoices = (choices: Choices, arrangement: string) => Choices;

/** Decides something, as one step that can be taken back. */
export function useChoose(): (change: ChangeChoices) => void {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  return useCallback(
    (change) => {
      const state = store.getState();
      dispatch(choicesMade(change(state.document.choices, arrangementName(state))));
    },
    [store, dispatch],
  );
}
