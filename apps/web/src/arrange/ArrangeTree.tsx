import type { Finding, Outline, Severity } from '@isomeros/core/contract';
import { Input } from 'antd';
import { useMemo, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { OperationMarks } from '../app/parts/OperationMarks.js';
import type { AbleTo } from '../app/parts/operationsOf.js';
import { outlineRows, type OutlineRow } from '../app/parts/outlineRows.js';
import { RowList, type TreePlace } from '../app/parts/RowList.js';
import { useAppSelector } from '../app/store.js';
import { ArrangeViews } from './ArrangeViews.js';
import { FindingMark } from '../findings/FindingMark.js';
import { severitiesOf } from '../findings/findingsAt.js';
import { mergedRows, unchanged } from './mergedRows.js';
import { NOWHERE, ROOT } from './moves.js';
import { shownRows, type ShownRow } from './shownRows.js';
import { useDragging } from './useDragging.js';
import { operationByDigit, useLeaveOut } from './useLeaveOut.js';
import type { MovingControl } from './useMoving.js';
import { amount } from '../app/parts/amount.js';

interface Props {
  readonly outline: Outline;
  readonly note: string | null;
  readonly selected: string | null;
  readonly control: MovingControl;
  readonly hidden: readonly string[];
  readonly onSelect: (row: OutlineRow) => void;
  readonly onOpen: (row: OutlineRow) => void;
}

const INDENT = 14;
const NONE: readonly Finding[] = [];

/** The path tree as a document: filtered by typing, folded, and rearranged by dragging or by keyboard. */
export function ArrangeTree(props: Props): React.JSX.Element {
  const { outline, note, selected, control, hidden, onSelect, onOpen } = props;
  const { moving } = control;
  const [filter, setFilter] = useState('');
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const before = outlineRows(outline);
  const after = moving?.chosen == null ? null : (control.consequenceOf(moving.chosen)?.outline ?? null);
  const merged = useMemo(
    () => (after === null ? unchanged(before) : mergedRows(before, outlineRows(after))),
    [before, after],
  );
  const rows = useMemo(() => shownRows(merged, folded, filter), [merged, folded, filter]);
  const findings = useAppSelector((state) => state.derived.review?.findings ?? NONE);
  const severities = useMemo(() => severitiesOf(findings, outline), [findings, outline]);
  const dragging = useDragging(control);
  const leaveOut = useLeaveOut();
  const current = rows.find(({ row, change }) => row.resource.id === selected && change !== 'comes');
  const fold = (id: string, isFolded: boolean): void => {
    const next = new Set(folded);
    if (isFolded) next.add(id);
    else next.delete(id);
    setFolded(next);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (moving !== null && moveKey(event, control)) return;
    if (current !== undefined && rowKey(event, current.row, { control, fold, leaveOut }))
      event.preventDefault();
  };
  return (
    <section className="panel arrange-tree" aria-label="Path tree of the arrangement">
      <header className="panel-head">
        <ArrangeViews />
        <span className="quiet">
          {amount(outline.resources.length, 'path')}, {amount(outline.operations.length, 'operation')}
          {note !== null && `; ${note}`}
        </span>
        <span className="end">
          <Input
            allowClear
            className="mono"
            aria-label="Filter paths"
            placeholder="filter paths"
            value={filter}
            onChange={({ target }) => setFilter(target.value)}
          />
        </span>
      </header>
      <div className="panel-body" onKeyDownCapture={onKeyDown}>
        <RowList
          role="tree"
          label="Path tree"
          treePlace={treePlaceOf}
          rows={rows}
          rowKey={keyOf}
          rowHeight={20}
          selected={current === undefined ? null : keyOf(current)}
          onSelect={({ row }) => onSelect(row)}
          onOpen={({ row }) => onOpen(row)}
          rowClass={({ change, row }) => rowClass(change, row, control)}
          onRowPointerDown={(shown, event: PointerEvent) => {
            if (shown.change !== 'comes') dragging.press(shown.row.resource, event);
          }}
          rowDrop={({ row, change }) => (change === 'goes' ? undefined : row.resource.id)}
        >
          {(shown) => (
            <TreeCells
              shown={shown}
              root={outline.root}
              isTarget={moving?.targets.has(shown.row.resource.id) ?? false}
              severity={severities.get(shown.row.resource.id) ?? null}
              onFold={fold}
              isCurrent={shown === current}
              onLeaveOut={(operation) => leaveOut(shown.row, operation)}
            />
          )}
        </RowList>
      </div>
      <NotExposed names={hidden} isTarget={moving?.target === NOWHERE} />
      {dragging.at !== null && moving !== null && (
        <div className="dragged mono" style={{ left: dragging.at.x + 12, top: dragging.at.y + 8 }}>
          {moving.resource.path.split('/').slice(-1)}
        </div>
      )}
    </section>
  );
}

const treePlaceOf = ({ row: { level }, below, isFolded }: ShownRow): TreePlace => ({
  level,
  isExpanded: below === 0 ? null : !isFolded,
});

const keyOf = ({ row, change }: ShownRow): string =>
  change === 'comes' ? `comes ${row.resource.path}` : row.resource.id;

function rowClass(change: ShownRow['change'], { resource }: OutlineRow, { moving }: MovingControl): string {
  if (change !== 'same') return change;
  return moving !== null && resource.id === moving.target ? 'target' : '';
}

/** Keys while something is moved; whether it was one of them. */
function moveKey(event: KeyboardEvent, control: MovingControl): boolean {
  if (event.key === 'Escape') control.cancel();
  else if (event.key === 'Enter') control.finish();
  else if (/^[1-9]$/.test(event.key)) control.choose(Number(event.key) - 1);
  else return false;
  event.preventDefault();
  event.stopPropagation();
  return true;
}

/** What keys on the chosen path do. */
interface RowActions {
  readonly control: MovingControl;
  readonly fold: (id: string, isFolded: boolean) => void;
  readonly leaveOut: (row: OutlineRow, operation: AbleTo) => void;
}

/** Keys on the chosen path; whether it was one of them. */
function rowKey(event: KeyboardEvent, row: OutlineRow, { control, fold, leaveOut }: RowActions): boolean {
  const { resource } = row;
  const operation = operationByDigit(row, event.key);
  const isLeft = event.key === 'ArrowLeft';
  if (operation !== undefined) leaveOut(row, operation);
  else if (!isLeft && event.key !== 'ArrowRight') return false;
  else if (event.altKey) promote(control, resource, isLeft);
  else fold(resource.id, isLeft);
  return true;
}

/** Up to the root, or down below what it belongs to; what cannot go there may go somewhere else. */
function promote(control: MovingControl, resource: OutlineRow['resource'], isUp: boolean): void {
  if (isUp) {
    if (!control.begin(resource, ROOT)) control.begin(resource, NOWHERE);
    return;
  }
  for (const target of control.targetsOf(resource))
    if (target !== ROOT && target !== NOWHERE && control.begin(resource, target)) return;
}

interface CellsProps {
  readonly shown: ShownRow;
  readonly root: string;
  /** Whether what is moved could be let go here. */
  readonly isTarget: boolean;
  /** Of the worst finding about the path. */
  readonly severity: Severity | null;
  readonly onFold: (id: string, isFolded: boolean) => void;
  /** Marks are pressed on the chosen path alone: whoever chooses one presses anywhere. */
  readonly isCurrent: boolean;
  readonly onLeaveOut: (operation: AbleTo) => void;
}

function TreeCells(props: CellsProps): React.JSX.Element {
  const { shown, root, isTarget, severity, isCurrent, onFold, onLeaveOut } = props;
  const { row, change, below, isFolded } = shown;
  const { level, tail, resource } = row;
  return (
    <>
      <span className="sign" aria-label={SAID[change]}>
        {isTarget ? '›' : SIGN[change]}
      </span>
      <button
        type="button"
        className="fold quiet"
        style={{ marginLeft: level * INDENT }}
        tabIndex={-1}
        aria-label={isFolded ? `Unfold ${resource.path}` : `Fold ${resource.path}`}
        hidden={below === 0}
        onClick={(event) => {
          event.stopPropagation();
          onFold(resource.id, !isFolded);
        }}
      >
        {isFolded ? '▸' : '▾'}
      </button>
      <span className="tree-path mono" title={root + resource.path}>
        {level === 0 ? root : tail}
        {isFolded && <span className="quiet"> {below} below</span>}
      </span>
      {severity !== null && <FindingMark severity={severity} />}
      <OperationMarks row={row} {...(isCurrent ? { onToggle: onLeaveOut } : {})} />
    </>
  );
}

const SIGN = { same: '', comes: '+', goes: '−' } as const;
const SAID = { same: undefined, comes: 'comes', goes: 'goes' } as const;

interface NotExposedProps {
  readonly names: readonly string[];
  readonly isTarget: boolean;
}

/** What has no path; a branch that is let go here joins it. */
function NotExposed({ names, isTarget }: NotExposedProps): React.JSX.Element {
  return (
    <p
      className={isTarget ? 'not-exposed target' : 'not-exposed'}
      data-drop={NOWHERE}
      title="Let a branch go here to expose it no more"
    >
      <span className="strong">Not exposed</span>{' '}
      {names.length === 0 ? <span className="quiet">nothing</span> : names.join(', ')}
      <span className="end quiet">
        drag a branch, or <kbd>Alt ←</kbd> <kbd>Alt →</kbd>; <kbd>1</kbd>–<kbd>4</kbd> leaves out
      </span>
    </p>
  );
}
