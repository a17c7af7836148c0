import type { RecordTable } from '@isomeros/api';
import { skipToken } from '@reduxjs/toolkit/query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { completeFind, type RecordColumn, type RecordLink, type TableRecord } from '@isomeros/core/records';
import { storageOf } from '@isomeros/core/model';
import { useRef, useState, type KeyboardEvent } from 'react';
import { problemOf } from '../app/api/client.js';
import { LineField } from '../app/parts/LineField.js';
import { useAppSelector } from '../app/store.js';
import { RecordCellView } from './RecordCellView.js';
import { useReadRecordTableQuery, type RecordsAsked } from './recordsApi.js';

/** So many records are asked for at a time; two such pages hold whatever is in view. */
const PAGE = 100;
const ROW = 26;
const NO_COLUMNS: readonly RecordColumn[] = [];

interface Props {
  /** The id of the mock. */
  readonly mock: string;
  readonly type: string;
  /** The number of the record that is looked at. */
  readonly selected: number | null;
  readonly onSelect: (number: number) => void;
  readonly onFollow: (to: RecordLink) => void;
}

/** The records of one type: looked for, sorted, and drawn as far as they are in view. */
export function RecordTableView({ mock, type, selected, onSelect, onFollow }: Props): React.JSX.Element {
  const [find, setFind] = useState('');
  const [sort, setSort] = useState('');
  const scroller = useRef<HTMLDivElement>(null);
  const [first, setFirst] = useState(0);
  const { known, found, error, rowAt, loaded } = useRecordPages({ mock, type, find, sort }, first);
  const columns = known?.columns ?? NO_COLUMNS;
  const virtual = useVirtualizer({
    count: found,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
    onChange: ({ range }) => setFirst(range?.startIndex ?? 0),
  });
  const at = loaded.find((index) => selected !== null && rowAt(index)?.number === selected);
  const move = (to: number): void => {
    const index = Math.max(0, Math.min(found - 1, to));
    virtual.scrollToIndex(index, { align: 'auto' });
    const row = rowAt(index);
    if (row !== undefined) onSelect(row.number);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.target !== event.currentTarget) return;
    const steps: Readonly<Record<string, number>> = {
      ArrowDown: at === undefined ? first : at + 1,
      ArrowUp: (at ?? first) - 1,
      PageDown: (at ?? first) + 20,
      PageUp: (at ?? first) - 20,
    };
    const to = steps[event.key];
    if (to === undefined) return;
    event.preventDefault();
    move(to);
  };
  const line = lineOf(columns);
  return (
    <section className="panel record-table" aria-label={type}>
      <header className="panel-head">
        <h2>{type}</h2>
        <span className="quiet">{countText(known, found)}</span>
        <FindField type={type} find={find} onFind={setFind} />
      </header>
      {error !== undefined && (
        <p className="wrong" role="alert">
          {problemOf(error)?.detail}
        </p>
      )}
      <div
        ref={scroller}
        className="record-rows"
        role="grid"
        aria-label={`${type} records`}
        aria-rowcount={found + 1}
        tabIndex={0}
        onKeyDown={onKeyDown}
      >
        <div className="record-head" role="row" style={line}>
          {columns.map((column) => (
            <SortHead key={column.name} column={column} sort={sort} onSort={setSort} />
          ))}
        </div>
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const row = rowAt(index);
            return (
              <div
                key={index}
                role="row"
                aria-rowindex={index + 2}
                aria-selected={index === at}
                className="record-row"
                style={{ ...line, height: ROW, transform: `translateY(${start}px)` }}
                onClick={() => {
                  if (row !== undefined) onSelect(row.number);
                }}
              >
                {row !== undefined && <Cells columns={columns} row={row} onFollow={onFollow} />}
              </div>
            );
          })}
        </div>
        {known !== undefined && found === 0 && error === undefined && (
          <p className="empty-note">
            {known.total === 0 ? `There is no ${type} yet.` : 'None of them is what is looked for.'}
          </p>
        )}
      </div>
    </section>
  );
}

const countText = (known: RecordTable | undefined, found: number): string =>
  known === undefined ? '' : found === known.total ? String(found) : `${found} of ${known.total}`;

interface Pages {
  /** The page in view; while it is read, the one before. */
  readonly known: RecordTable | undefined;
  readonly found: number;
  readonly error: unknown;
  readonly rowAt: (index: number) => TableRecord | undefined;
  /** The places of the rows that can be there. */
  readonly loaded: readonly number[];
}

/** The page that holds the first row in view, and the next one. */
function useRecordPages(looked: Omit<RecordsAsked, 'offset' | 'limit'>, first: number): Pages {
  const start = Math.floor(first / PAGE) * PAGE;
  const asked = { ...looked, limit: PAGE };
  const { currentData: one, data: last, error } = useReadRecordTableQuery({ ...asked, offset: start });
  const known = one ?? last;
  const found = error === undefined ? (known?.found ?? 0) : 0;
  const isMore = found > start + PAGE;
  const next = useReadRecordTableQuery(isMore ? { ...asked, offset: start + PAGE } : skipToken);
  const two = isMore ? next.currentData : undefined;
  return {
    known,
    found,
    error,
    rowAt: (index) => (index < start + PAGE ? one?.rows[index - start] : two?.rows[index - start - PAGE]),
    loaded: Array.from({ length: 2 * PAGE }, (_, index) => start + index),
  };
}

interface CellsProps {
  readonly columns: readonly RecordColumn[];
  readonly row: TableRecord;
  readonly onFollow: (to: RecordLink) => void;
}

const Cells = ({ columns, row, onFollow }: CellsProps): React.JSX.Element => (
  <>
    {row.cells.map((cell, place) => (
      <span role="gridcell" key={columns[place]?.name ?? place} className={cellClass(columns[place])}>
        <RecordCellView cell={cell} onFollow={onFollow} />
      </span>
    ))}
  </>
);

interface FindFieldProps {
  readonly type: string;
  readonly find: string;
  readonly onFind: (find: string) => void;
}

function FindField({ type, find, onFind }: FindFieldProps): React.JSX.Element {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const storage = model === null ? undefined : storageOf(model).byName.get(type);
  return (
    <span className="end record-find">
      <LineField
        label={`Find ${type}`}
        value={find}
        placeholder="a text, or where … by …"
        complete={(text) =>
          model === null || storage === undefined ? [] : completeFind(model, storage, text)
        }
        onCommit={onFind}
      />
    </span>
  );
}

interface SortHeadProps {
  readonly column: RecordColumn;
  readonly sort: string;
  readonly onSort: (sort: string) => void;
}

const SORTED = { ascending: ' ▲', descending: ' ▼', none: '' } as const;

/** The name of a column; pressed, it sorts by it, then the other way round, then not. */
function SortHead({ column, sort, onSort }: SortHeadProps): React.JSX.Element {
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

const isNumber = ({ type }: RecordColumn): boolean => /^(?:integer|decimal)\b/.test(type);

const cellClass = (column: RecordColumn | undefined): string =>
  column !== undefined && column.kind !== 'owner' && column.kind !== 'reference' && isNumber(column)
    ? 'number'
    : '';

/** How a row is laid out, its head too. */
function lineOf(columns: readonly RecordColumn[]): { gridTemplateColumns: string; minWidth: number } {
  const widths = columns.map(widthOf);
  return {
    gridTemplateColumns: widths.map((width) => `${width}px`).join(' '),
    minWidth: widths.reduce((sum, width) => sum + width, 0),
  };
}

const SHORT_TEXT = 8;

/** Wide enough for what its type usually holds, in pixels. */
function widthOf(column: RecordColumn): number {
  const { kind, type } = column;
  if (kind === 'owner' || kind === 'reference') return 170;
  if (/^instant/.test(type)) return 180;
  if (isNumber(column)) return kind === 'key' ? 72 : 96;
  if (/^(?:boolean|date|time)/.test(type)) return 100;
  if (/^(?:choice|duration)/.test(type)) return 110;
  const longest = Number(/^text\(\d*\.\.(\d+)/.exec(type)?.[1] ?? Infinity);
  if (longest <= SHORT_TEXT) return 84;
  return kind === 'key' ? 110 : 150;
}
