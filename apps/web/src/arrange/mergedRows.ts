import { appendAll } from '@isomeros/core/model';
import type { OutlineRow } from '../app/parts/outlineRows.js';

/** A row of a path tree in which it is seen what would come and go. */
export interface MergedRow {
  readonly row: OutlineRow;
  readonly change: 'same' | 'comes' | 'goes';
}

export const unchanged = (rows: readonly OutlineRow[]): readonly MergedRow[] =>
  rows.map((row) => ({ row, change: 'same' }));

/** Two path trees as one: what goes stays where it was, what comes stands where it will be. */
export function mergedRows(
  before: readonly OutlineRow[],
  after: readonly OutlineRow[],
): readonly MergedRow[] {
  const pathOf = ({ resource }: OutlineRow): string => resource.path;
  const is = new Set(after.map(pathOf));
  const was = new Set(before.map(pathOf));
  const goingAfter = new Map<string | null, OutlineRow[]>();
  let last: string | null = null;
  for (const row of before) {
    if (is.has(pathOf(row))) {
      last = pathOf(row);
      continue;
    }
    const going = goingAfter.get(last);
    if (going === undefined) goingAfter.set(last, [row]);
    else going.push(row);
  }
  const merged: MergedRow[] = [];
  let waiting: readonly OutlineRow[] = goingAfter.get(null) ?? [];
  const flush = (): void => {
    appendAll(
      merged,
      waiting.map((row): MergedRow => ({ row, change: 'goes' })),
    );
    waiting = [];
  };
  for (const row of after) {
    if (!was.has(pathOf(row))) {
      merged.push({ row, change: 'comes' });
      continue;
    }
    flush();
    merged.push({ row, change: 'same' });
    const going = goingAfter.get(pathOf(row)) ?? [];
    // What hung below the row goes before anything comes there; what stood beside it goes after that.
    const beside = going.findIndex(({ level }) => level <= row.level);
    waiting = beside === -1 ? going : going.slice(0, beside);
    flush();
    if (beside !== -1) waiting = going.slice(beside);
  }
  flush();
  return merged;
}
