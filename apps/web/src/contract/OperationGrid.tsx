import { useVirtualizer } from '@tanstack/react-virtual';
import {
  searchTexts,
  type Contract,
  type Finding,
  type Method,
  type Operation,
} from '@isomeros/core/contract';
import { holdsWords } from '@isomeros/core/model';
import { Input, Segmented } from 'antd';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { Explained, ExplainedWords } from '../app/help/Explained.js';
import { severitiesOf } from '../findings/findingsAt.js';
import { amount } from '../app/parts/amount.js';
import { DocumentedMark } from './DocumentedMark.js';
import { METHOD_WIDTHS, SheetRowView } from './SheetRowView.js';
import {
  GROUPINGS,
  METHOD_COLUMNS,
  narrowRows,
  sheetRows,
  stepFrom,
  tallyOf,
  type Grouping,
  type SheetRow,
} from './sheetRows.js';

const ROW = 20;
const GROUPING_KEY = 'isomeros.sheet.grouping';
const NONE: ReadonlySet<string> = new Set();

interface Props {
  readonly contract: Contract;
  readonly findings: readonly Finding[];
  readonly selected: Operation | undefined;
  readonly onSelect: (operation: Operation) => void;
}

/** A row a path, a column a method; a cell shows the effect, the status of success, and whether it is documented. */
export function OperationGrid({ contract, findings, selected, onSelect }: Props): React.JSX.Element {
  const { typed, setTyped, grouping, setGrouping, folded, setFolded, found, rows } = useSheet(contract);
  const methods = useMemo(() => methodsIn(contract), [contract]);
  const severities = useMemo(() => severitiesOf(findings, contract), [findings, contract]);
  const columns = columnsOf(methods);
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useSheetRows(rows.length, scroller);
  // A path may stand in several groups: keys go on from where it was pressed.
  const [pressed, setPressed] = useState<string | null>(null);
  const current = useMemo(() => currentRow(rows, selected, pressed), [rows, selected, pressed]);
  useEffect(() => {
    if (current >= 0) virtual.scrollToIndex(current, { align: 'auto' });
  }, [current, virtual]);
  const choose = (row: string, operation: Operation): void => {
    setPressed(row);
    onSelect(operation);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const next = stepFrom(rows, current, selected, event.key);
    if (next === null) return;
    event.preventDefault();
    scroller.current?.focus();
    choose(next.row.id, next.operation);
  };
  return (
    <>
      <SheetTools
        contract={contract}
        typed={typed}
        onType={setTyped}
        grouping={grouping}
        onGroup={setGrouping}
        found={found}
      />
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
                key={`${row.kind} ${row.id}`}
                role="presentation"
                style={{ position: 'absolute', left: 0, right: 0, transform: `translateY(${item.start}px)` }}
              >
                <SheetRowView
                  row={row}
                  severity={severities.get(row.kind === 'path' ? row.resource.id : '') ?? null}
                  flat={grouping === 'path' && typed !== ''}
                  isCurrent={item.index === current}
                  isFolded={typed === '' && folded.has(row.id)}
                  isFound={found}
                  methods={methods}
                  columns={columns}
                  selected={selected}
                  onSelect={(operation) => choose(row.id, operation)}
                  onFold={() => setFolded(without(folded, row.id))}
                />
              </div>
            );
          })}
        </div>
        {rows.length === 0 && (
          <p className="empty-note">No operation, nor any text about one, holds “{typed}”.</p>
        )}
      </div>
      <Legend contract={contract} />
    </>
  );
}

/** Only the rows that can be seen are drawn. */
const useSheetRows = (
  count: number,
  scroller: RefObject<HTMLDivElement | null>,
): ReturnType<typeof useVirtualizer<HTMLDivElement, Element>> =>
  useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 14,
  });

/** The columns as CSS writes them. */
const columnsOf = (methods: readonly Method[]): string =>
  `minmax(0, 1fr) ${methods.map((method) => `${METHOD_WIDTHS[method]}px`).join(' ')}`;

/** A method that nothing takes leaves its place to the paths. */
function methodsIn({ operations }: Contract): readonly Method[] {
  const used = new Set(operations.map(({ method }) => method));
  return METHOD_COLUMNS.filter((method) => used.has(method));
}

interface SheetState {
  readonly typed: string;
  readonly setTyped: (typed: string) => void;
  readonly grouping: Grouping;
  readonly setGrouping: (grouping: Grouping) => void;
  /** Groups whose rows are not shown. */
  readonly folded: ReadonlySet<string>;
  readonly setFolded: (folded: ReadonlySet<string>) => void;
  readonly found: (operation: Operation) => boolean;
  readonly rows: readonly SheetRow[];
}

/** How the sheet is narrowed and grouped, and the rows that are left. */
function useSheet(contract: Contract): SheetState {
  const [typed, setTyped] = useState('');
  const [grouping, setGrouping] = useState<Grouping>(
    () => GROUPINGS.find((one) => one === localStorage.getItem(GROUPING_KEY)) ?? 'path',
  );
  const [folded, setFolded] = useState(NONE);
  const all = useMemo(() => sheetRows(contract, grouping), [contract, grouping]);
  const found = useMemo(() => foundBy(contract, typed), [contract, typed]);
  const rows = useMemo(
    () => narrowRows(all, { isFound: found, folded: typed === '' ? folded : NONE }),
    [all, found, folded, typed],
  );
  return { typed, setTyped, grouping, setGrouping, folded, setFolded, found, rows };
}

/** Whether an operation, or any text about it, holds every word that was typed. */
function foundBy(contract: Contract, typed: string): (operation: Operation) => boolean {
  if (typed.trim() === '') return () => true;
  const holds = holdsWords(typed);
  const texts = searchTexts(contract);
  const found = new Set(
    contract.operations.filter(({ id }) => holds(texts.get(id) ?? '')).map(({ id }) => id),
  );
  return ({ id }) => found.has(id);
}

function currentRow(
  rows: readonly SheetRow[],
  selected: Operation | undefined,
  pressed: string | null,
): number {
  const holds = (row: SheetRow): boolean =>
    row.kind === 'path' && row.operations.some(({ id }) => id === selected?.id);
  const exact = rows.findIndex((row) => row.id === pressed && holds(row));
  return exact >= 0 ? exact : rows.findIndex(holds);
}

/** A set with what it did not have, or without what it had. */
function without(set: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
}

interface ToolsProps extends FigureProps {
  readonly onType: (typed: string) => void;
  readonly grouping: Grouping;
  readonly onGroup: (grouping: Grouping) => void;
}

/** What narrows the sheet and groups it, and how much of it is documented. */
const SheetTools = ({ contract, typed, onType, grouping, onGroup, found }: ToolsProps): React.JSX.Element => (
  <header className="panel-head sheet-tools">
    <Explained by="contract.narrow">
      <Input
        aria-label="Narrow the operations"
        placeholder={`Narrow ${amount(contract.operations.length, 'operation')}`}
        style={{ width: 160 }}
        value={typed}
        onChange={({ target }) => onType(target.value)}
        allowClear
      />
    </Explained>
    <Explained by="contract.grouping">
      <Segmented<Grouping>
        size="small"
        aria-label="Group by"
        options={[...GROUPINGS]}
        value={grouping}
        onChange={(next) => {
          localStorage.setItem(GROUPING_KEY, next);
          onGroup(next);
        }}
      />
    </Explained>
    <Figure contract={contract} found={found} typed={typed} />
  </header>
);

interface FigureProps {
  readonly contract: Contract;
  readonly found: (operation: Operation) => boolean;
  readonly typed: string;
}

/** How much is documented; while it is narrowed, how much is found. */
function Figure({ contract, found, typed }: FigureProps): React.JSX.Element {
  const { documented, undocumented, unpublished } = tallyOf(contract.operations);
  const all = documented + undocumented + unpublished;
  return (
    <span className="end" role="status">
      {typed.trim() === '' ? (
        <>
          documented <span className="strong">{documented}</span> of {all}
        </>
      ) : (
        `${contract.operations.filter(found).length} of ${all}`
      )}
    </span>
  );
}

/** What the marks in the cells mean, and how many there are of each. */
function Legend({ contract }: { readonly contract: Contract }): React.JSX.Element {
  const { documented, undocumented, unpublished, deprecated } = tallyOf(contract.operations);
  return (
    <p className="sheet-legend quiet">
      <span>
        <DocumentedMark state="documented" /> documented {documented}
      </span>
      <span>
        <DocumentedMark state="undocumented" /> not {undocumented}
      </span>
      <span>
        <DocumentedMark state="unpublished" /> unpublished {unpublished}
      </span>
      <span>
        <s>200</s> deprecated {deprecated}
      </span>
    </p>
  );
}
