import type { ModelEdit } from '@isomeros/core/model';
import { editText, parse } from '@isomeros/core/notation';
import { useCallback } from 'react';
import { useAppDispatch, useAppStore } from '../app/store.js';
import { textEdited } from './documentSlice.js';

/** Makes an edit of the model as a change of its text, undone like one. */
export function useModelEdit(): (edit: ModelEdit) => void {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  return useCallback(
    (edit) => {
      const { text, design } = store.getState().document;
      if (design !== null) dispatch(textEdited(editText(text, parse(text, design.identities), edit)));
    },
    [store, dispatch],
  );
}
