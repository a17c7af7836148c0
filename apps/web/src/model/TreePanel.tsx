import { useMemo, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useAppSelector } from '../app/store.js';
import type { Outline } from '@isomeros/core/contract';
import { outlineRows } from '../app/parts/outlineRows.js';
import { PathTreeView } from '../app/parts/PathTreeView.js';
import { amount } from '../app/parts/amount.js';
import { AS_OF_VALID } from '../design/behindText.js';

interface Props {
  /** The switch between map and paths. */
  readonly viewSwitch: ReactNode;
  readonly outline: Outline | null;
  /** Whether the text has errors, so that the tree is that of an earlier one. */
  readonly broken: boolean;
  readonly selected: string | null;
  readonly onSelect: (resource: string) => void;
}

/** The paths the model implies; those that are new since the design was opened are marked. */
export function TreePanel({ viewSwitch, outline, broken, selected, onSelect }: Props): React.JSX.Element {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const knownPaths = useAppSelector((state) => state.view.knownPaths);
  const known = useMemo(() => new Set(knownPaths ?? []), [knownPaths]);
  const isNew = (path: string): boolean => knownPaths !== null && !known.has(path);
  const newCount = outline?.resources.filter(({ path }) => isNew(path)).length ?? 0;
  const empty = broken ? 'The text has errors, so nothing can be derived yet.' : 'Deriving.';
  return (
    <section className="panel" aria-label="What this implies">
      <header className="panel-head">
        {viewSwitch}
        {outline !== null && (
          <span className="quiet">
            {amount(outline.resources.length, 'path')}, {amount(outline.operations.length, 'operation')}
            {newCount > 0 && `, ${newCount} new`}
          </span>
        )}
        <span className="end quiet">{broken && outline !== null && AS_OF_VALID}</span>
      </header>
      <div className="panel-body">
        {outline === null ? (
          <p className="empty-note">{empty}</p>
        ) : (
          <PathTreeView
            root={outline.root}
            rows={outlineRows(outline)}
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
