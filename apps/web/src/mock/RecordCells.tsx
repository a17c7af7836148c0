import type { RecordColumn, RecordLink, TableRecord } from '@isomeros/core/records';
import { textOfCell } from '@isomeros/core/records';
import { CellEditor, type NextCell } from './CellEditor.js';
import { cellClass } from './columnLayout.js';
import { RecordCellView } from './RecordCellView.js';
import type { EditWay, PendingEdit } from './recordEditsSlice.js';

/** A row of a table: a record that is there, with what was typed into it, or one that is to be added. */
export interface RecordGridRow {
  readonly record: TableRecord | null;
  readonly edit: PendingEdit | undefined;
}

interface Props {
  /** The id of the mock. */
  readonly mock: string;
  readonly type: string;
  readonly way: EditWay;
  readonly columns: readonly RecordColumn[];
  readonly row: RecordGridRow;
  /** The place of the column where the cursor is; `null` where it is in another row. */
  readonly cursor: number | null;
  readonly isEditing: boolean;
  readonly onEdit: (column: number) => void;
  readonly onPoint: (column: number) => void;
  readonly onType: (column: number, text: string, before: string, next: NextCell) => void;
  readonly onCancel: () => void;
  readonly onFollow: (to: RecordLink) => void;
}

/** The cells of a row. What was typed stands where it was typed, and what is wrong with it below. */
export function RecordCells(props: Props): React.JSX.Element {
  const { mock, type, way, columns, row, cursor, isEditing, onEdit, onPoint, onType, onCancel, onFollow } =
    props;
  const { record, edit } = row;
  return (
    <>
      {columns.map((column, at) => {
        const cell = record?.cells[at];
        const before = cell === undefined ? '' : textOfCell(cell);
        const typed = edit?.texts[column.name];
        const problem = edit?.problems.find((one) => one.column === column.name);
        const isHere = cursor === at;
        const classes = [
          cellClass(column),
          typed === undefined ? '' : 'typed',
          problem === undefined ? '' : 'refused',
          isHere ? 'cursor' : '',
        ];
        return (
          <span
            role="gridcell"
            key={column.name}
            id={isHere ? cursorId(type) : undefined}
            ref={isHere ? intoView : undefined}
            className={classes.join(' ')}
            title={problem?.message}
            onClick={() => onPoint(at)}
            onDoubleClick={() => onEdit(at)}
          >
            {isHere && isEditing ? (
              <CellEditor
                mock={mock}
                type={type}
                way={way}
                column={column}
                before={before}
                text={typed ?? before}
                onCommit={(text, next) => onType(at, text, before, next)}
                onCancel={onCancel}
              />
            ) : typed !== undefined ? (
              <span className="mono">{typed === '' ? <span className="quiet">unset</span> : typed}</span>
            ) : cell === undefined ? (
              <span className="quiet">{column.kind === 'key' && record === null ? 'made' : ''}</span>
            ) : (
              <RecordCellView cell={cell} onFollow={onFollow} />
            )}
          </span>
        );
      })}
    </>
  );
}

const intoView = (cell: HTMLElement | null): void => {
  cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
};

/** The id of the cell where the cursor is, for who reads the page aloud. */
export const cursorId = (type: string): string => `cursor-${type.replaceAll(' ', '-')}`;
