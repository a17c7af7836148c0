import type { Contract } from '@isomeros/core/contract';
import type { Diagnostic } from '@isomeros/core/notation';
import { useCallback, useMemo, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { treeRows } from '../app/parts/treeRows.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { textEdited } from '../design/designSlice.js';
import { ImpliedStrip } from './ImpliedStrip.js';
import { NotationEditor, type Reveal } from './NotationEditor.js';
import { PathTree } from './PathTree.js';
import './model.css';

const NONE: readonly Diagnostic[] = [];

/** The model as text, and beside it what it implies. */
export function ModelPage(): React.JSX.Element {
  const [search] = useSearchParams();
  const { derived, contract } = useAppSelector((state) => state.design);
  const asked = Number(search.get('line') ?? 0);
  const askedReveal = useMemo<Reveal | null>(() => (asked > 0 ? { line: asked } : null), [asked]);
  const [chosenReveal, setChosenReveal] = useState<Reveal | null>(null);
  const [selected, setSelected] = useState<string | null>(null);
  const reveal = (line: number): void => setChosenReveal({ line });
  const diagnostics = derived?.diagnostics ?? NONE;
  const row =
    contract === null ? undefined : treeRows(contract).find(({ resource }) => resource.id === selected);
  return (
    <div className="model-page">
      <SplitPanels name="model" first={660}>
        <NotationPanel diagnostics={diagnostics} reveal={chosenReveal ?? askedReveal} onReveal={reveal} />
        <TreePanel
          contract={contract}
          broken={diagnostics.length > 0}
          selected={selected}
          onSelect={setSelected}
        />
      </SplitPanels>
      <ImpliedStrip row={row} onStatement={reveal} />
    </div>
  );
}

interface NotationProps {
  readonly diagnostics: readonly Diagnostic[];
  readonly reveal: Reveal | null;
  readonly onReveal: (line: number) => void;
}

function NotationPanel({ diagnostics, reveal, onReveal }: NotationProps): React.JSX.Element {
  const dispatch = useAppDispatch();
  const text = useAppSelector((state) => state.design.text);
  const [line, setLine] = useState(1);
  const onEdit = useCallback((edited: string) => dispatch(textEdited(edited)), [dispatch]);
  return (
    <section className="panel" aria-label="Notation">
      <header className="panel-head">
        <h2>Notation</h2>
        <span className="quiet">
          {text.split('\n').length} lines, line {line}
        </span>
        <span className="end">
          {diagnostics.length > 0 && (
            <Errors lines={diagnostics.map(({ place }) => place.line)} onLine={onReveal} />
          )}
        </span>
      </header>
      <div className="panel-body">
        <NotationEditor
          text={text}
          diagnostics={diagnostics}
          reveal={reveal}
          onEdit={onEdit}
          onLine={setLine}
        />
      </div>
    </section>
  );
}

interface ErrorsProps {
  readonly lines: readonly number[];
  readonly onLine: (line: number) => void;
}

function Errors({ lines, onLine }: ErrorsProps): React.JSX.Element {
  const [first = 1] = lines;
  return (
    <button type="button" className="text-button wrong" onClick={() => onLine(first)}>
      {lines.length === 1 ? '1 error' : `${lines.length} errors`}, line {first}
    </button>
  );
}

interface TreeProps {
  readonly contract: Contract | null;
  /** Whether the text has errors, so that the tree is that of an earlier one. */
  readonly broken: boolean;
  readonly selected: string | null;
  readonly onSelect: (resource: string) => void;
}

function TreePanel({ contract, broken, selected, onSelect }: TreeProps): React.JSX.Element {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const knownPaths = useAppSelector((state) => state.design.knownPaths);
  const known = useMemo(() => new Set(knownPaths ?? []), [knownPaths]);
  const isNew = (path: string): boolean => knownPaths !== null && !known.has(path);
  const newCount = contract?.resources.filter(({ path }) => isNew(path)).length ?? 0;
  const empty = broken ? 'The text has errors, so nothing can be derived yet.' : 'Deriving.';
  return (
    <section className="panel" aria-label="What this implies">
      <header className="panel-head">
        <h2>What this implies</h2>
        {contract !== null && (
          <span className="quiet">
            {contract.resources.length} paths, {contract.operations.length} operations
            {newCount > 0 && `, ${newCount} new`}
          </span>
        )}
        <span className="end quiet">{broken && contract !== null && 'of the last text without errors'}</span>
      </header>
      <div className="panel-body">
        {contract === null ? (
          <p className="empty-note">{empty}</p>
        ) : (
          <PathTree
            contract={contract}
            selected={selected}
            isNew={isNew}
            onSelect={({ resource }) => onSelect(resource.id)}
            onOpen={({ operations: [first] }) => {
              if (first !== undefined) void navigate(`/designs/${id}/contract?operation=${first.id}`);
            }}
          />
        )}
      </div>
    </section>
  );
}
