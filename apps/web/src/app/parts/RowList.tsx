import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';

/** What a list is to assistive technology, and what its rows are in it (WAI-ARIA 1.2 §5.3). */
const ROW_ROLES = { listbox: 'option', tree: 'treeitem', grid: 'row' } as const;

/** Where a row stands in a tree; what has nothing below it is neither folded nor unfolded. */
export interface TreePlace {
  /** From 0. */
  readonly level: number;
  readonly isExpanded: boolean | null;
}

interface Props<T> {
  /** A list of choices where nothing is said; rows of a grid hold cells. */
  readonly role?: keyof typeof ROW_ROLES;
  readonly treePlace?: (row: T) => TreePlace;
  readonly label: string;
  readonly rows: readonly T[];
  readonly rowKey: (row: T) => string;
  readonly rowHeight: number;
  readonly selected: string | null;
  readonly onSelect: (row: T) => void;
  readonly onOpen?: (row: T) => void;
  readonly rowClass?: (row: T) => string;
  /** Where a pointer is pressed on a row. */
  readonly onRowPointerDown?: (row: T, event: PointerEvent) => void;
  /** What something dragged would be let go at on this row. */
  readonly rowDrop?: (row: T) => string | undefined;
  readonly children: (row: T) => ReactNode;
  /** Keeps the last row in view while rows are added, unless the reader has scrolled up. */
  readonly followEnd?: boolean;
}

/** A list of any length: only visible rows are drawn, arrow keys move the selection. */
export function RowList<T>(props: Props<T>): React.JSX.Element {
  const { label, rows, rowKey, rowHeight, selected, onSelect, onOpen, followEnd } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const atEnd = useRef(true);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    // Rows that arrive in numbers are there before they are scrolled to.
    overscan: followEnd === true ? 40 : 12,
  });
  const index = selected === null ? -1 : rows.findIndex((row) => rowKey(row) === selected);
  useEffect(() => {
    if (index >= 0) virtual.scrollToIndex(index, { align: 'auto' });
  }, [index, virtual]);
  useEffect(() => {
    if (followEnd === true && atEnd.current && rows.length > 0)
      virtual.scrollToIndex(rows.length - 1, { align: 'end' });
  }, [followEnd, rows.length, virtual]);
  const move = (to: number): void => {
    const row = rows[Math.max(0, Math.min(rows.length - 1, to))];
    if (row !== undefined) onSelect(row);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 0) / rowHeight) - 1);
    const steps: Readonly<Record<string, number>> = {
      ArrowDown: index + 1,
      ArrowUp: index === -1 ? rows.length - 1 : index - 1,
      PageDown: index + page,
      PageUp: index - page,
      Home: 0,
      End: rows.length - 1,
    };
    const to = steps[event.key];
    const row = rows[index];
    if (to !== undefined) move(to);
    else if (event.key === 'Enter' && row !== undefined && onOpen !== undefined) onOpen(row);
    else return;
    event.preventDefault();
  };
  const onScroll = (): void => {
    const element = scroller.current;
    if (element !== null)
      atEnd.current = element.scrollTop + element.clientHeight >= element.scrollHeight - rowHeight * 2;
  };
  return (
    <div
      ref={scroller}
      className="row-list"
      role={props.role ?? 'listbox'}
      aria-label={label}
      aria-activedescendant={index >= 0 ? rowId(label, index) : undefined}
      tabIndex={0}
      onKeyDown={onKeyDown}
      onScroll={onScroll}
    >
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index];
          if (row === undefined) return null;
          return (
            <ListRow
              key={rowKey(row)}
              list={props}
              row={row}
              index={item.index}
              start={item.start}
              isSelected={item.index === index}
            />
          );
        })}
      </div>
    </div>
  );
}

const rowId = (label: string, index: number): string =>
  `${label.replace(/\W+/g, '-').toLowerCase()}-${index}`;

interface RowProps<T> {
  /** What the list was told: the same object for as long as it is only scrolled. */
  readonly list: Props<T>;
  readonly row: T;
  readonly index: number;
  /** Pixels from the top of the list. */
  readonly start: number;
  readonly isSelected: boolean;
}

/** One row. While the list is scrolled only rows that come into view are drawn. */
const ListRow = memo(DrawnRow) as typeof DrawnRow;

function DrawnRow<T>({ list, row, index, start, isSelected }: RowProps<T>): React.JSX.Element {
  const { role = 'listbox', treePlace, label, rowHeight, rowClass, rowDrop } = list;
  const { onRowPointerDown, onSelect, onOpen, children } = list;
  const place = treePlace?.(row);
  return (
    <div
      id={rowId(label, index)}
      role={ROW_ROLES[role]}
      aria-selected={isSelected}
      aria-level={place === undefined ? undefined : place.level + 1}
      aria-expanded={place?.isExpanded ?? undefined}
      className={`row ${rowClass?.(row) ?? ''}`}
      style={{ height: rowHeight, transform: `translateY(${start}px)` }}
      data-drop={rowDrop?.(row)}
      onPointerDown={(event) => onRowPointerDown?.(row, event)}
      onClick={() => {
        onSelect(row);
      }}
      onDoubleClick={() => onOpen?.(row)}
    >
      {children(row)}
    </div>
  );
}
