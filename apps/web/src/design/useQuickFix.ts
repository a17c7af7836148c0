import { withAnswer, type QuickFix } from '@isomeros/core/contract';
import { useCallback } from 'react';
import { useAppDispatch, useAppStore } from '../app/store.js';
import { choicesMade } from './designSlice.js';
import { useModelEdit } from './useModelEdit.js';

/** Carries out a mend: an edit of the text, or another decision about the arrangement. */
export function useQuickFix(): (mend: QuickFix) => void {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const edit = useModelEdit();
  return useCallback(
    ({ answer }) => {
      if (answer.kind === 'edit') {
        edit(answer.edit);
        return;
      }
      const { choices, arrangement } = store.getState().design;
      dispatch(choicesMade(withAnswer(choices, arrangement, answer)));
    },
    [store, dispatch, edit],
  );
}
