/** Rows that belong together, under a heading. */
export interface RowGroup<T> {
  readonly name: string;
  readonly rows: readonly T[];
}

/** A heading, or a row below one. */
export type GroupedRow<T> =
  | { readonly kind: 'group'; readonly key: string; readonly group: RowGroup<T>; readonly isOpen: boolean }
  | { readonly kind: 'row'; readonly key: string; readonly row: T };

/** Fewer rows than this stand open, whatever is folded. */
const FEW = 60;

/** Things by what `nameOf` calls them, in the order in which each name comes first. */
export function groupsOf<T>(things: readonly T[], nameOf: (thing: T) => string): readonly RowGroup<T>[] {
  const groups = new Map<string, T[]>();
  for (const thing of things) {
    const name = nameOf(thing);
    const known = groups.get(name);
    if (known === undefined) groups.set(name, [thing]);
    else known.push(thing);
  }
  return [...groups].map(([name, rows]) => ({ name, rows }));
}

/** Headings with the rows of those that are unfolded; where there are few rows all are. */
export function groupedRows<T>(
  groups: readonly RowGroup<T>[],
  keyOf: (row: T) => string,
  unfolded: ReadonlySet<string>,
): readonly GroupedRow<T>[] {
  const all = groups.reduce((sum, { rows }) => sum + rows.length, 0);
  return groups.flatMap((group): GroupedRow<T>[] => {
    const isOpen = all <= FEW || unfolded.has(group.name);
    const heading: GroupedRow<T> = { kind: 'group', key: `group ${group.name}`, group, isOpen };
    return isOpen
      ? [heading, ...group.rows.map((row): GroupedRow<T> => ({ kind: 'row', key: keyOf(row), row }))]
      : [heading];
  });
}

/** Whether every word that was typed stands in one of some texts. */
export function holdsAll(typed: string, texts: readonly string[]): boolean {
  const words = typed
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  const all = texts.join('\n').toLowerCase();
  return words.every((word) => all.includes(word));
}
