import { OperationMarks } from './OperationMarks.js';
import { RowList } from './RowList.js';
import type { OutlineRow } from './outlineRows.js';

interface Props {
  readonly root: string;
  readonly rows: readonly OutlineRow[];
  readonly selected: string | null;
  readonly isNew: (path: string) => boolean;
  readonly onSelect: (row: OutlineRow) => void;
  readonly onOpen: (row: OutlineRow) => void;
}

/** The paths a model implies, as a tree with the operations of each. */
export function PathTreeView({ root, rows, selected, isNew, onSelect, onOpen }: Props): React.JSX.Element {
  return (
    <RowList
      role="tree"
      label="Path tree"
      treePlace={({ level }) => ({ level, isExpanded: null })}
      rows={rows}
      rowKey={({ resource }) => resource.id}
      rowHeight={20}
      selected={selected}
      onSelect={onSelect}
      onOpen={onOpen}
      rowClass={({ resource }) => (isNew(resource.path) ? 'new' : '')}
    >
      {(row) => (
        <>
          <span
            className="tree-path mono"
            style={{ paddingLeft: row.level * 14 }}
            title={root + row.resource.path}
          >
            {row.level === 0 ? root : row.tail}
          </span>
          <OperationMarks row={row} />
        </>
      )}
    </RowList>
  );
}
