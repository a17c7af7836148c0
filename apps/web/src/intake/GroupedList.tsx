import { useState, type ReactNode } from 'react';
import { RowList } from '../app/parts/RowList.js';
import { groupedRows, type GroupedRow, type RowGroup } from './reportGroups.js';

interface Props<T> {
  readonly label: string;
  readonly groups: readonly RowGroup<T>[];
  readonly rowKey: (row: T) => string;
  readonly rowHeight: number;
  readonly selected: string | null;
  readonly onSelect: (row: T) => void;
  /** What stands behind the name of a group. */
  readonly note: (group: RowGroup<T>) => ReactNode;
  readonly children: (row: T) => ReactNode;
}

/** A list of any length in groups: Enter or a press folds one and unfolds it. */
export function GroupedList<T>(props: Props<T>): React.JSX.Element {
  const { label, groups, rowKey, rowHeight, selected, onSelect, note, children } = props;
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const [heading, setHeading] = useState<string | null>(null);
  const rows = groupedRows(groups, rowKey, unfolded);
  const toggle = (name: string): void => {
    const next = new Set(unfolded);
    if (!next.delete(name)) next.add(name);
    setUnfolded(next);
  };
  const select = (row: GroupedRow<T>): void => {
    if (row.kind === 'group') {
      setHeading(row.key);
      return;
    }
    setHeading(null);
    onSelect(row.row);
  };
  return (
    <RowList
      role="tree"
      treePlace={(row) =>
        row.kind === 'group' ? { level: 0, isExpanded: row.isOpen } : { level: 1, isExpanded: null }
      }
      label={label}
      rows={rows}
      rowKey={({ key }) => key}
      rowHeight={rowHeight}
      selected={heading ?? selected}
      onSelect={select}
      onOpen={(row) => {
        if (row.kind === 'group') toggle(row.group.name);
      }}
    >
      {(row) =>
        row.kind === 'group' ? (
          <span className="report-group">
            <button
              type="button"
              className="plain-button strong"
              tabIndex={-1}
              onClick={() => toggle(row.group.name)}
            >
              <span aria-hidden className="fold">
                {row.isOpen ? '▾' : '▸'}
              </span>
              {row.group.name}
            </button>
            <span className="quiet">{note(row.group)}</span>
          </span>
        ) : (
          children(row.row)
        )
      }
    </RowList>
  );
}
