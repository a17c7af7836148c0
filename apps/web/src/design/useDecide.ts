import { withEdit, type PartEdit, type PartName } from '@isomeros/core/arrangement';
import { useCallback } from 'react';
import { useChoose } from './useChoose.js';

/** Decides something about a part of the arrangement that is looked at, or takes it back. */
export function useDecide(): <Name extends PartName>(part: Name, edit: PartEdit<Name>) => void {
  const choose = useChoose();
  return useCallback(
    (part, edit) => choose((choices, arrangement) => withEdit(choices, arrangement, part, edit)),
    [choose],
  );
}
