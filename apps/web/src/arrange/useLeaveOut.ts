import { leaving, withLeftOut } from '@isomeros/core/arrangement';
import { useCallback } from 'react';
import { operationsOf, type AbleTo } from '../app/parts/operationsOf.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { useChoose } from '../design/useChoose.js';

/** Leaves an operation of one path out, or offers it again, as one step that can be taken back. */
export function useLeaveOut(): (row: OutlineRow, operation: AbleTo) => void {
  const choose = useChoose();
  return useCallback(
    ({ resource }, operation) => {
      const { leavable } = operation;
      if (leavable === null) return;
      choose((choices, arrangement) =>
        withLeftOut(choices, arrangement, [resource.id], leaving(leavable, operation.id !== null)),
      );
    },
    [choose],
  );
}

/** The operation of a row that a digit stands for, from 1. */
export const operationByDigit = (row: OutlineRow, key: string): AbleTo | undefined =>
  /^[1-9]$/.test(key) ? operationsOf(row)[Number(key) - 1] : undefined;
