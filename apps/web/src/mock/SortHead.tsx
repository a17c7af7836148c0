import type { RecordColumn } from '@isomeros/core/records';
import { cellClass } from './columnLayout.js';

interface SortHeadProps {
  readonly column: RecordColumn;
  readonly sort: string;
  readonly onSort: (sort: string) => void;
}

const SORTED = { ascending: ' ▲', descending: ' ▼', none: '' } as const;

/** The name of a column; pressed, it sorts by it, then the other way round, then not. */
export function SortHead({ column, sort, onSort }: SortHeadProps): React.JSX.Element {
  const { name, type, isSorted } = column;
  const sorted = sort === name ? 'ascending' : sort === `-${name}` ? 'descending' : 'none';
  const next = { none: name, ascending: `-${name}`, descending: '' }[sorted];
  return (
    <span role="columnheader" aria-sort={sorted} className={cellClass(column)} title={type}>
      {isSorted ? (
        <button type="button" onClick={() => onSort(next)}>
          {name}
          <span aria-hidden>{SORTED[sorted]}</span>
        </button>
      ) : (
        name
      )}
    </span>
  );
}
