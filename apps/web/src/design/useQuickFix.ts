import { withAnswer, type QuickFix } from '@isomeros/core/contract';
import { useCallback } from 'react';
import { useChoose } from './useChoose.js';
import { useModelEdit } from './useModelEdit.js';

/** Carries out a mend: an edit of the text, or another decision about the arrangement. */
export function useQuickFix(): (mend: QuickFix) => void {
  const choose = useChoose();
  const edit = useModelEdit();
  return useCallback(
    ({ answer }) => {
      if (answer.kind === 'edit') edit(answer.edit);
      else choose((choices, arrangement) => withAnswer(choices, arrangement, answer));
    },
    [choose, edit],
  );
}
