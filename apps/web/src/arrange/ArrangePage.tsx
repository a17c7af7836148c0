import type { OutlineResource } from '@isomeros/core/contract';
import { indexModel } from '@isomeros/core/model';
import { useEffect, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { outlineRows } from '../app/parts/outlineRows.js';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { choicesRedone, choicesUndone } from '../design/documentSlice.js';
import { useArrangeView } from './ArrangeViews.js';
import { ArrangeTree } from './ArrangeTree.js';
import { Conventions } from './Conventions.js';
import { LinkWays } from './linkMap/LinkWays.js';
import { MovePanel } from './MovePanel.js';
import { PathPanel } from './PathPanel.js';
import { PlacementTable } from './PlacementTable.js';
import { useMoving } from './useMoving.js';
import { usePathsSinceOpened } from './usePathsSinceOpened.js';
import './arrange.css';
import { AS_OF_VALID, isBehindText } from '../design/behindText.js';

/** How the model is laid out as resources: where each statement stands, the paths that gives, and why. */
export function ArrangePage(): React.JSX.Element {
  const { id = '' } = useParams();
  const navigate = useNavigate();
  const outline = useAppSelector((state) => state.derived.outline);
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const broken = useAppSelector(isBehindText);
  const [selected, setSelected] = useState<string | null>(null);
  const [asksWhy, setAsksWhy] = useState(false);
  const [showsLinks, setShowsLinks] = useState(false);
  const { told } = usePathsSinceOpened(outline);
  const control = useMoving();
  useUndoKeys();
  const [view, showView] = useArrangeView();
  if (outline === null) return <p className="empty-note">There is nothing to arrange yet.</p>;
  const goTo = (line: number): void => void navigate(`/designs/${id}/model?line=${line}`);
  if (view === 'links')
    return (
      <LinkWays
        onStatement={goTo}
        onShow={(resource) => {
          setSelected(resource);
          showView('paths');
        }}
      />
    );
  const rows = outlineRows(outline);
  const row = rows.find(({ resource }) => resource.id === selected) ?? rows[0];
  const shown = new Set(outline.resources.flatMap(({ entity }) => entity ?? []));
  const hidden =
    model === null ? [] : [...indexModel(model).entities.keys()].filter((name) => !shown.has(name));
  const selectStatement = (statement: string): void => {
    const found = outline.resources.find((resource) => statementsOf(resource).includes(statement));
    if (found !== undefined) setSelected(found.id);
  };
  return (
    <SplitPanels name="arrange" first={300}>
      <div className="arrange-left">
        <PlacementTable
          selected={row === undefined ? null : (statementsOf(row.resource)[0] ?? null)}
          onSelect={selectStatement}
        />
        <Conventions />
      </div>
      <SplitPanels name="arrange-tree" first={556}>
        <div className="arrange-middle">
          <ArrangeTree
            outline={outline}
            note={broken ? AS_OF_VALID : told}
            selected={row?.resource.id ?? null}
            control={control}
            hidden={hidden}
            onSelect={({ resource }) => setSelected(resource.id)}
            onOpen={({ operations: [first] }) => {
              if (first !== undefined) void navigate(`/designs/${id}/contract?operation=${first.id}`);
            }}
          />
          {control.moving !== null && (
            <MovePanel
              control={control}
              pathOf={(resource) =>
                outline.root + (outline.resources.find((one) => one.id === resource)?.path ?? '')
              }
            />
          )}
        </div>
        <PathPanel
          key={row?.resource.id ?? ''}
          row={row}
          root={outline.root}
          asksWhy={asksWhy}
          onAskWhy={setAsksWhy}
          showsLinks={showsLinks}
          onShowLinks={setShowsLinks}
          onStatement={goTo}
        />
      </SplitPanels>
    </SplitPanels>
  );
}

/** The statements a resource comes from, the nearest first. */
const statementsOf = ({ via, transition, reasons }: OutlineResource): readonly string[] => [
  ...(transition === null ? [] : [transition]),
  ...(via === null ? [] : [via.relationship]),
  ...(reasons[0]?.because ?? []).flatMap((source) => (source.kind === 'statement' ? [source.id] : [])),
];

/** Takes decisions back and makes them again, unless a text is being edited. */
function useUndoKeys(): void {
  const dispatch = useAppDispatch();
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent): void => {
      const isText = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
      if (isText || !(event.ctrlKey || event.metaKey)) return;
      const key = event.key.toLowerCase();
      if (key === 'z') dispatch(event.shiftKey ? choicesRedone() : choicesUndone());
      else if (key === 'y') dispatch(choicesRedone());
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, [dispatch]);
}
