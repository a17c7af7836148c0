import { withEdit, type Choices, type PartEdit, type PartName } from '@isomeros/core/arrangement';
import type { Answer } from '@isomeros/core/contract';
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

/** An answer that decides something about the arrangement. */
export type ArrangingAnswer = Extract<Answer, { kind: 'placement' | 'word' | 'exposure' }>;

/** The choices as an answer has them. */
export function withAnswer(choices: Choices, arrangement: string, answer: ArrangingAnswer): Choices {
  switch (answer.kind) {
    case 'placement': {
      const { of: kind, subject, place } = answer;
      return withEdit(choices, arrangement, 'placements', { kind, subject, place });
    }
    case 'word':
      return withEdit(choices, arrangement, 'words', { subject: answer.subject, word: answer.word });
    case 'exposure': {
      const { entity, of: member, aspect } = answer;
      return withEdit(choices, arrangement, 'exposures', { entity, member, aspect, value: null });
    }
  }
}
