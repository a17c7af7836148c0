import type { RowChange } from './dataset.js';

/** What a write changed, as the trace says it. */
export function changesInWords(changes: readonly RowChange[]): string {
  const count = (kind: RowChange['kind']): number => changes.filter((change) => change.kind === kind).length;
  const parts = [
    [count('add'), 'added'],
    [count('update'), 'changed'],
    [count('remove'), 'removed'],
  ] as const;
  const told = parts.filter(([number]) => number > 0).map(([number, word]) => `${number} ${word}`);
  return told.length === 0 ? 'nothing changed' : `records: ${told.join(', ')}`;
}
