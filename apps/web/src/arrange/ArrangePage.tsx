import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppSelector } from '../app/store.js';
import { outlineRows } from '../app/parts/outlineRows.js';
import { PathTree } from '../app/parts/PathTree.js';
import { Conventions } from './Conventions.js';
import { PathPanel } from './PathPanel.js';
import { usePathsSinceOpened } from './usePathsSinceOpened.js';
import './arrange.css';

/** How the model is laid out as resources: conventions at the left, the paths they give, and why. */
export function ArrangePage(): React.JSX.Element {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const outline = useAppSelector((state) => state.design.outline);
  const broken = useAppSelector((state) => (state.design.derived?.diagnostics.length ?? 0) > 0);
  const [selected, setSelected] = useState<string | null>(null);
  const { isNew, told } = usePathsSinceOpened(outline);
  const rows = outline === null ? [] : outlineRows(outline);
  const row = rows.find(({ resource }) => resource.id === selected) ?? rows[0];
  return (
    <SplitPanels name="arrange" first={320}>
      <Conventions />
      <SplitPanels name="arrange-tree" first={516}>
        <section className="panel" aria-label="Path tree of the arrangement">
          <header className="panel-head">
            <h2>Path tree</h2>
            <span className="quiet">
              {outline?.resources.length ?? 0} paths, {outline?.operations.length ?? 0} operations
            </span>
            <span className="end quiet">{broken ? 'of the last text without errors' : told}</span>
          </header>
          <div className="panel-body">
            {outline !== null && (
              <PathTree
                root={outline.root}
                rows={rows}
                selected={row?.resource.id ?? null}
                isNew={isNew}
                onSelect={({ resource }) => setSelected(resource.id)}
                onOpen={({ operations: [first] }) => {
                  if (first !== undefined) void navigate(`/designs/${id}/contract?operation=${first.id}`);
                }}
              />
            )}
          </div>
        </section>
        <PathPanel
          row={row}
          root={outline?.root ?? ''}
          onStatement={(line) => void navigate(`/designs/${id}/model?line=${line}`)}
        />
      </SplitPanels>
    </SplitPanels>
  );
}
