import { useVirtualizer } from '@tanstack/react-virtual';
import type { RecordColumn, RecordLink, TableRecord } from '@isomeros/core/records';
import { useCallback, useEffect, useRef, type KeyboardEvent } from 'react';
import { useAppDispatch } from '../app/store.js';
import { lineOf } from './columnLayout.js';
import { RowProblems } from './RowProblems.js';
import {
  cellTyped,
  rowRemovalTurned,
  type EditedRow,
  type PendingEdit,
  type PendingEdits,
} from './recordEditsSlice.js';
import { cursorId, RecordCells, type RecordGridRow } from './RecordCells.js';
import { SortHead } from './SortHead.js';
import { useGridCursor, type GridCursor, type GridRows } from './useGridCursor.js';

const ROW = 26;
/** Room for what is wrong below a row. */
const PROBLEM = 26;
const PAGE_STEP = 20;

interface Props extends Omit<GridRows, 'added'> {
  /** The id of the mock. */
  readonly mock: string;
  readonly type: string;
  readonly columns: readonly RecordColumn[];
  /** What is typed into rows of this type. */
  readonly pending: PendingEdits;
  readonly sort: string;
  readonly onSort: (sort: string) => void;
  /** The number of the record that is looked at. */
  readonly selected: number | null;
  readonly onSelect: (number: number) => void;
  readonly onFollow: (to: RecordLink) => void;
  /** Tells which record is the first in view. */
  readonly onScroll: (first: number) => void;
  /** An added row that typing begins in, as soon as it is there. */
  readonly begun: number | null;
}

/** Rows of a table with a cursor. Those that are to be added come first. */
export function RecordGrid(props: Props): React.JSX.Element {
  const { mock, type, columns, found, rowAt, pending, selected, onSelect, begun } = props;
  const dispatch = useAppDispatch();
  const scroller = useRef<HTMLDivElement>(null);
  const added = pending.edits.filter(({ row }) => row.kind === 'added');
  const shownAt = (index: number): RecordGridRow | undefined => {
    const edit = added[index];
    if (edit !== undefined) return { record: null, edit };
    const record = rowAt(index - added.length);
    return record === undefined ? undefined : { record, edit: editOf(pending, record) };
  };
  const virtual = useVirtualizer({
    count: added.length + found,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => ROW + (hasProblems(shownAt(index)) ? PROBLEM : 0),
    overscan: 8,
    onChange: ({ range }) => props.onScroll(Math.max(0, (range?.startIndex ?? 0) - added.length)),
  });
  const refused = pending.edits.filter(({ problems }) => problems.length > 0).length;
  useEffect(() => {
    virtual.measure();
  }, [virtual, refused, added.length]);
  const cursor = useGridCursor({
    rows: { added, found, rowAt, loaded: props.loaded },
    columns,
    selected,
    onSelect,
    onReach: useCallback((index) => virtual.scrollToIndex(index, { align: 'auto' }), [virtual]),
    onLeaveCell: () => scroller.current?.focus(),
    begun,
  });
  const turnRemoval = (row: RecordGridRow): void => {
    const edited = rowOf(row);
    if (edited !== null) dispatch(rowRemovalTurned({ mock, type, row: edited }));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.target !== event.currentTarget) return;
    const row = cursor.at === null ? undefined : shownAt(cursor.at);
    const act = keyActs(cursor, added.length + found, row, turnRemoval)[event.key];
    if (act === undefined) return;
    event.preventDefault();
    act();
  };
  const line = lineOf(columns);
  return (
    <div
      ref={scroller}
      className="record-rows"
      role="grid"
      aria-label={`${type} records`}
      aria-rowcount={added.length + found + 1}
      aria-activedescendant={cursor.at === null ? undefined : cursorId(type)}
      tabIndex={0}
      onKeyDown={onKeyDown}
    >
      <div className="record-head" role="row" style={line}>
        {columns.map((one) => (
          <SortHead key={one.name} column={one} sort={props.sort} onSort={props.onSort} />
        ))}
      </div>
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map(({ index, start, size }) => {
          const row = shownAt(index);
          return (
            <div
              key={row?.record?.number ?? `row ${index}`}
              role="row"
              aria-rowindex={index + 2}
              aria-selected={index === cursor.at}
              className={rowClass(row)}
              style={{ ...line, height: size, transform: `translateY(${start}px)` }}
            >
              {row !== undefined && <GridRow {...props} row={row} index={index} cursor={cursor} />}
            </div>
          );
        })}
      </div>
    </div>
  );
}

interface GridRowProps extends Props {
  readonly row: RecordGridRow;
  readonly index: number;
  readonly cursor: GridCursor;
}

function GridRow({ row, index, cursor, ...props }: GridRowProps): React.JSX.Element {
  const { mock, type, columns, pending, onFollow } = props;
  const dispatch = useAppDispatch();
  const isHere = index === cursor.at;
  return (
    <>
      <RecordCells
        mock={mock}
        type={type}
        way={pending.way}
        columns={columns}
        row={row}
        cursor={isHere ? cursor.column : null}
        isEditing={cursor.isEditing}
        onPoint={(place) => {
          cursor.point(place);
          if (!isHere) cursor.select(index);
        }}
        onEdit={(place) => {
          cursor.select(index);
          cursor.edit(place);
        }}
        onType={(place, text, before, next) => {
          const column = columns[place]?.name ?? '';
          const edited = rowOf(row);
          if (edited !== null && (hasProblems(row) || text !== (row.edit?.texts[column] ?? before)))
            dispatch(cellTyped({ mock, type, row: edited, column, text, before }));
          cursor.leave(place, next);
        }}
        onCancel={cursor.cancel}
        onFollow={onFollow}
      />
      {row.edit !== undefined && <RowProblems columns={columns} problems={row.edit.problems} />}
    </>
  );
}

/** What the keyboard does while no cell is typed in. */
function keyActs(
  { at, column, move, point, edit }: GridCursor,
  count: number,
  row: RecordGridRow | undefined,
  onRemoval: (row: RecordGridRow) => void,
): Readonly<Record<string, (() => void) | undefined>> {
  const here = at ?? 0;
  const begin = row === undefined ? undefined : (): void => edit(column);
  return {
    ArrowDown: () => move(at === null ? 0 : at + 1),
    ArrowUp: () => move(here - 1),
    PageDown: () => move(here + PAGE_STEP),
    PageUp: () => move(here - PAGE_STEP),
    Home: () => move(0),
    End: () => move(count - 1),
    ArrowRight: () => point(column + 1),
    ArrowLeft: () => point(column - 1),
    Enter: begin,
    F2: begin,
    Delete: row === undefined ? undefined : () => onRemoval(row),
  };
}

const hasProblems = (row: RecordGridRow | undefined): boolean => (row?.edit?.problems.length ?? 0) > 0;

const editOf = ({ edits }: PendingEdits, { number }: TableRecord): PendingEdit | undefined =>
  edits.find(({ row }) => row.kind === 'there' && row.number === number);

/** A row as edits name it: a record in the version that is seen. */
const rowOf = ({ record, edit }: RecordGridRow): EditedRow | null =>
  record === null ? (edit?.row ?? null) : { kind: 'there', number: record.number, version: record.version };

const rowClass = (row: RecordGridRow | undefined): string =>
  [
    'record-row',
    ...(row !== undefined && row.record === null ? ['added'] : []),
    ...(row?.edit?.isRemoved === true ? ['to-remove'] : []),
  ].join(' ');
