import { withEdit, type PartEdit, type PartName } from '@isomeros/core/arrangement';
import { useCallback } from 'react';
import { useAppDispatch, useAppStore } from '../app/store.js';
import { choicesMade } from './designSlice.js';

/** Decides something about a part of the arrangement that is looked at, or takes it back. */
export function useDecide(): <Name extends PartName>(part: Name, edit: PartEdit<Name>) => void {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  return useCallback(
    (part, edit) => {
      const { choices, arrangement } = store.getState().design;
      dispatch(choicesMade(withEdit(choices, arrangement, part, edit)));
    },
    [store, dispatch],
  );
}
