import { useVirtualizer } from '@tanstack/react-virtual';
import {
  successStatus,
  type Contract,
  type Method,
  type Operation,
  type Resource,
} from '@isomeros/core/contract';
import { Input } from 'antd';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { ExplainedWords } from '../app/help/Explained.js';
import { EffectMark } from '../app/parts/EffectMark.js';
import { treeRows, type TreeRow } from '../app/parts/treeRows.js';
import { amount } from '../app/parts/amount.js';
import { holdsWords } from '@isomeros/core/model';

const METHODS: readonly Method[] = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];
/** Pixels that the column of a method takes. */
const WIDTH: Readonly<Record<Method, number>> = { GET: 54, POST: 54, PUT: 72, PATCH: 54, DELETE: 62 };
const ROW = 20;

interface Props {
  readonly contract: Contract;
  readonly selected: Operation | undefined;
  readonly onSelect: (operation: Operation) => void;
}

/** A row a path, a column a method; a cell shows the effect and the status of success. */
export function OperationGrid({ contract, selected, onSelect }: Props): React.JSX.Element {
  const [typed, setTyped] = useState('');
  const rows = useMemo(() => narrow(treeRows(contract), typed), [contract, typed]);
  // A method that nothing takes leaves its place to the paths.
  const methods = useMemo(() => {
    const used = new Set(contract.operations.map(({ method }) => method));
    return METHODS.filter((method) => used.has(method));
  }, [contract]);
  const columns = `minmax(0, 1fr) ${methods.map((method) => `${WIDTH[method]}px`).join(' ')}`;
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 14,
  });
  const current = rows.findIndex(({ resource }) => resource.id === selected?.resource);
  useEffect(() => {
    if (current >= 0) virtual.scrollToIndex(current, { align: 'auto' });
  }, [current, virtual]);
  const onKeyDown = (event: KeyboardEvent): void => {
    const next = step(rows, current, selected, event.key);
    if (next === undefined) return;
    event.preventDefault();
    onSelect(next);
  };
  return (
    <>
      <header className="panel-head">
        <Input
          aria-label="Narrow the paths"
          placeholder={`Type to narrow ${amount(contract.resources.length, 'path')}`}
          style={{ width: 220 }}
          value={typed}
          onChange={({ target }) => {
            setTyped(target.value);
          }}
          allowClear
        />
        <span className="end quiet">{typed === '' ? '' : amount(rows.length, 'path')}</span>
      </header>
      <div className="sheet-row sheet-head quiet" style={{ gridTemplateColumns: columns }}>
        <span>
          under <code>{contract.root}</code>
        </span>
        {methods.map((method) => (
          <ExplainedWords key={method} by="contract.methods">
            <code>{method}</code>
          </ExplainedWords>
        ))}
      </div>
      <div
        className="sheet-grid"
        ref={scroller}
        tabIndex={0}
        role="grid"
        aria-label="Paths and methods"
        aria-rowcount={rows.length}
        onKeyDown={onKeyDown}
      >
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: 'relative' }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index];
            return row === undefined ? null : (
              <div
                key={row.resource.id}
                role="presentation"
                style={{ position: 'absolute', left: 0, right: 0, transform: `translateY(${item.start}px)` }}
              >
                <SheetRow
                  row={row}
                  flat={typed !== ''}
                  methods={methods}
                  columns={columns}
                  selected={selected}
                  onSelect={onSelect}
                />
              </div>
            );
          })}
        </div>
        {rows.length === 0 && <p className="empty-note">No path or operation holds “{typed}”.</p>}
      </div>
    </>
  );
}

type SheetRow = TreeRow<Resource, Operation>;

interface RowProps extends Omit<Props, 'contract'> {
  readonly row: SheetRow;
  /** Whole paths instead of tails, where the rows above are missing. */
  readonly flat: boolean;
  /** The methods that have a column, and the columns as CSS writes them. */
  readonly methods: readonly Method[];
  readonly columns: string;
}

function SheetRow({ row, flat, methods, columns, selected, onSelect }: RowProps): React.JSX.Element {
  const { resource, operations, level, tail } = row;
  const label = resource.path === '' ? '/' : flat ? resource.path : tail;
  const classes = [
    'sheet-row',
    level === 1 && !flat ? 'group' : '',
    selected?.resource === resource.id ? 'current' : '',
  ];
  return (
    <div className={classes.join(' ')} role="row" style={{ gridTemplateColumns: columns }}>
      <span
        role="rowheader"
        className="path mono"
        style={{ paddingLeft: flat ? 0 : Math.max(0, level - 1) * 10 }}
        title={resource.path}
      >
        {label}
        {resource.kind === 'entry' && <span className="quiet"> entry</span>}
      </span>
      {methods.map((method) => {
        const operation = operations.find((candidate) => candidate.method === method);
        return operation === undefined ? (
          <span key={method} role="gridcell" />
        ) : (
          <span key={method} role="gridcell">
            <button
              type="button"
              tabIndex={-1}
              className={`sheet-cell ${endClass(operation)}`}
              aria-pressed={operation.id === selected?.id}
              aria-label={`${statuses(operation)} ${operation.id}, ${method} ${resource.path}${endWords(operation)}`}
              title={operation.id + endWords(operation)}
              onClick={() => {
                onSelect(operation);
              }}
            >
              <EffectMark effect={operation.effect} /> {statuses(operation)}
            </button>
          </span>
        );
      })}
    </div>
  );
}

/** What comes to its end is struck; what is in no published document is dotted. */
const endClass = ({ documentation }: Operation): string =>
  `${documentation?.deprecated == null ? '' : 'ends'} ${documentation?.isPublished === false ? 'unpublished' : ''}`;

function endWords({ documentation }: Operation): string {
  if (documentation === null) return '';
  const { deprecated, isPublished } = documentation;
  return `${deprecated === null ? '' : `, deprecated from ${deprecated}`}${isPublished ? '' : ', in no published document'}`;
}

function statuses(operation: Operation): string {
  // That a client may do without a body is the same everywhere, and told beside the operation.
  const usual = operation.responses.filter(({ status, code }) => status < 300 && code !== 'minimal');
  const good = [...new Set(usual.map(({ status }) => status))];
  return good.length === 0 ? String(successStatus(operation)) : good.join('/');
}

/** The rows whose path or operations hold every word that was typed. */
function narrow(rows: readonly SheetRow[], typed: string): readonly SheetRow[] {
  const holds = holdsWords(typed);
  return rows.filter(({ resource, operations }) =>
    holds(`${resource.path} ${operations.map(({ id, method }) => `${method} ${id}`).join(' ')}`),
  );
}

/** The operation an arrow key leads to: along a row, or to the row above or below in the same column. */
function step(
  rows: readonly SheetRow[],
  current: number,
  selected: Operation | undefined,
  key: string,
): Operation | undefined {
  const ordered = (row: SheetRow | undefined): Operation[] =>
    row === undefined
      ? []
      : [...row.operations].sort((a, b) => METHODS.indexOf(a.method) - METHODS.indexOf(b.method));
  const along = ordered(rows[current]);
  const at = along.findIndex(({ id }) => id === selected?.id);
  const inRow = (row: SheetRow | undefined): Operation | undefined => {
    const operations = ordered(row);
    return operations.find(({ method }) => method === selected?.method) ?? operations[0];
  };
  switch (key) {
    case 'ArrowRight':
      return along[at + 1];
    case 'ArrowLeft':
      return along[at - 1];
    case 'ArrowDown':
      return inRow(rows[current + 1]);
    case 'ArrowUp':
      return inRow(rows[current - 1]);
    case 'Home':
      return inRow(rows[0]);
    case 'End':
      return inRow(rows.at(-1));
    default:
      return undefined;
  }
}
