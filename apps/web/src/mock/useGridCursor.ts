import type { RecordColumn, TableRecord } from '@isomeros/core/records';
import { useEffect, useState } from 'react';
import type { NextCell } from './CellEditor.js';
import type { PendingEdit } from './recordEditsSlice.js';

/** The rows of a table: those that are to be added, then those that are there. */
export interface GridRows {
  readonly added: readonly PendingEdit[];
  /** How many records that are there are shown. */
  readonly found: number;
  readonly rowAt: (index: number) => TableRecord | undefined;
  /** The places of the records that can be there. */
  readonly loaded: readonly number[];
}

interface Asked {
  readonly rows: GridRows;
  readonly columns: readonly RecordColumn[];
  /** The number of the record that is looked at. */
  readonly selected: number | null;
  readonly onSelect: (number: number) => void;
  /** Brings a row into view. */
  readonly onReach: (index: number) => void;
  /** Takes the keyboard back from a cell. */
  readonly onLeaveCell: () => void;
  /** An added row that typing begins in, as soon as it is there. */
  readonly begun: number | null;
}

/** Where in a table somebody is, and whether they type there. */
export interface GridCursor {
  /** The place of the row; `null` where it is none of those in view. */
  readonly at: number | null;
  readonly column: number;
  readonly isEditing: boolean;
  readonly select: (index: number) => void;
  readonly move: (to: number) => void;
  readonly point: (column: number) => void;
  readonly edit: (column: number) => void;
  /** Ends typing in a cell, and goes on where it was asked to. */
  readonly leave: (column: number, next: NextCell) => void;
  readonly cancel: () => void;
}

export function useGridCursor(asked: Asked): GridCursor {
  const { rows, columns, selected, onSelect, onReach, onLeaveCell, begun } = asked;
  const { added, found, rowAt, loaded } = rows;
  const [addedId, setAddedId] = useState<number | null>(null);
  const [column, setColumn] = useState(0);
  const [isEditing, setEditing] = useState(false);
  const addedAt = added.findIndex(({ row }) => row.kind === 'added' && row.id === addedId);
  const there = loaded.find((index) => selected !== null && rowAt(index)?.number === selected);
  const firstTyped = Math.max(
    0,
    columns.findIndex(({ kind }) => kind !== 'key'),
  );
  // Only where another row begins: columns are other ones after each answer.
  const [begunBefore, setBegunBefore] = useState<number | null>(null);
  if (begun !== begunBefore) {
    setBegunBefore(begun);
    setAddedId(begun);
    setColumn(firstTyped);
    setEditing(begun !== null);
  }
  useEffect(() => {
    if (begun !== null) onReach(0);
  }, [begun, onReach]);
  const point = (place: number): void => setColumn(Math.max(0, Math.min(columns.length - 1, place)));
  const select = (index: number): void => {
    const row = added[index]?.row;
    if (row?.kind === 'added') {
      setAddedId(row.id);
      return;
    }
    setAddedId(null);
    const record = rowAt(index - added.length);
    if (record !== undefined) onSelect(record.number);
  };
  const edit = (place: number): void => {
    point(place);
    setEditing(true);
  };
  const cancel = (): void => {
    setEditing(false);
    onLeaveCell();
  };
  return {
    at: addedAt >= 0 ? addedAt : there === undefined ? null : there + added.length,
    column,
    isEditing,
    select,
    move: (to) => {
      const index = Math.max(0, Math.min(added.length + found - 1, to));
      onReach(index);
      select(index);
    },
    point,
    edit,
    leave: (place, next) => {
      if (next === 'right' && place + 1 < columns.length) edit(place + 1);
      else if (next === 'left' && place > 0) edit(place - 1);
      else if (next === 'none') setEditing(false);
      else cancel();
    },
    cancel,
  };
}
