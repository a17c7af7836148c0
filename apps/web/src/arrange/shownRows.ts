import type { MergedRow } from './mergedRows.js';

/** A row as it is drawn: with how many rows below it are folded away, and whether it can be folded. */
export interface ShownRow extends MergedRow {
  readonly below: number;
  readonly isFolded: boolean;
}

/**
 * The rows to draw: those below a folded one are left out, and with a filter only those whose path holds it,
 * with everything above them. Linear in the rows.
 */
export function shownRows(
  rows: readonly MergedRow[],
  folded: ReadonlySet<string>,
  filter: string,
): readonly ShownRow[] {
  const wanted = filter.trim().toLowerCase();
  const kept = wanted === '' ? rows : matching(rows, wanted);
  const belowOf = countBelow(kept);
  const shown: ShownRow[] = [];
  for (let at = 0; at < kept.length; at++) {
    const merged = kept[at];
    if (merged === undefined) break;
    const below = belowOf[at] ?? 0;
    const isFolded = wanted === '' && below > 0 && folded.has(merged.row.resource.id);
    shown.push({ ...merged, below, isFolded });
    if (isFolded) at += below;
  }
  return shown;
}

/** For each row how many rows after it lie deeper, up to the first that does not. */
function countBelow(rows: readonly MergedRow[]): readonly number[] {
  const counts = rows.map(() => 0);
  const open: number[] = [];
  const close = (end: number, level: number): void => {
    for (let at = open.at(-1); at !== undefined && levelAt(rows, at) >= level; at = open.at(-1)) {
      counts[at] = end - at - 1;
      open.pop();
    }
  };
  rows.forEach((_row, at) => {
    close(at, levelAt(rows, at));
    open.push(at);
  });
  close(rows.length, 0);
  return counts;
}

const levelAt = (rows: readonly MergedRow[], at: number): number => rows[at]?.row.level ?? 0;

function matching(rows: readonly MergedRow[], wanted: string): readonly MergedRow[] {
  const keep = new Set<number>();
  const above: number[] = [];
  rows.forEach(({ row }, at) => {
    while (above.length > 0 && levelAt(rows, above.at(-1) ?? 0) >= row.level) above.pop();
    const names = row.operations.map(({ id }) => id.toLowerCase());
    if (row.resource.path.toLowerCase().includes(wanted) || names.some((name) => name.includes(wanted))) {
      above.forEach((one) => keep.add(one));
      keep.add(at);
    }
    above.push(at);
  });
  return rows.filter((_row, at) => keep.has(at));
}
