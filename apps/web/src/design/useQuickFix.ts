import type { Choices } from '@isomeros/core/arrangement';
import type { QuickFix } from '@isomeros/core/contract';
import { useCallback } from 'react';
import { useAppDispatch, useAppStore } from '../app/store.js';
import { withExposure, withPlacement, withWord } from './choiceUpdates.js';
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
      const next = decided(choices, arrangement, answer);
      dispatch(choicesMade(next));
    },
    [store, dispatch, edit],
  );
}

type Decision = Exclude<QuickFix['answer'], { kind: 'edit' }>;

function decided(choices: Choices, arrangement: string, act: Decision): Choices {
  switch (act.kind) {
    case 'placement':
      return withPlacement(choices, arrangement, act.of, act.subject, act.place);
    case 'word':
      return withWord(choices, arrangement, act.subject, act.word);
    case 'exposure':
      return withExposure(
        choices,
        arrangement,
        { entity: act.entity, member: act.of, aspect: act.aspect },
        null,
      );
  }
}
