import type { Change } from './dataset.js';

/** What a write changed, as the trace says it. */
export function changesInWords(changes: readonly Change[]): string {
  const count = (kind: Change['kind']): number => changes.filter((change) => change.kind === kind).length;
  const parts = [
    [count('add'), 'added'],
    [count('update'), 'changed'],
    [count('remove'), 'removed'],
  ] as const;
  const told = parts.filter(([number]) => number > 0).map(([number, word]) => `${number} ${word}`);
  return told.length === 0 ? 'nothing changed' : `records: ${told.join(', ')}`;
}
