import type { EditorView } from '@codemirror/view';
import type { Diagnostic } from '@isomeros/core/notation';
import { Segmented } from 'antd';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { Explained } from '../app/help/Explained.js';
import { SplitPanels } from '../app/parts/SplitPanels.js';
import { useAppSelector } from '../app/store.js';
import { useDerivation } from '../design/derivation/useDerivation.js';
import { statementAt } from '../design/derivation/impact.js';
import { outlineRows } from '../app/parts/outlineRows.js';
import type { EditorContext } from './editorContext.js';
import { ImpactStrip } from './ImpactStrip.js';
import { MapPanel } from './MapPanel.js';
import type { ScrollTo } from './NotationEditor.js';
import { NotationPanel } from './NotationPanel.js';
import { ReferencePanel } from './ReferencePanel.js';
import type { LineRange } from './selectedMark.js';
import { declarationOf } from './sheets/edits.js';
import { TreePanel } from './TreePanel.js';
import './model.css';

const NONE: readonly Diagnostic[] = [];

/** What stands beside the text. */
const VIEW_MODES = ['map', 'paths', 'reference'] as const;
type ViewMode = (typeof VIEW_MODES)[number];
const VIEW_MODE_KEY = 'isomeros.view-mode';
const VIEW_MODE_NAMES: Readonly<Record<ViewMode, string>> = {
  map: 'Map',
  paths: 'Paths',
  reference: 'Reference',
};

/** The model as text and, beside it, as a map or as the paths it implies. */
export function ModelPage(): React.JSX.Element {
  const [search] = useSearchParams();
  const derived = useAppSelector((state) => state.derived.reading);
  const outline = useAppSelector((state) => state.derived.outline);
  const asked = Number(search.get('line') ?? 0);
  const askedReveal = useMemo<ScrollTo | null>(
    () => (asked > 0 ? { line: asked, focus: true } : null),
    [asked],
  );
  const [chosenReveal, setChosenReveal] = useState<ScrollTo | null>(null);
  const [path, setPath] = useState<string | null>(null);
  const [viewMode, setViewMode] = useState<ViewMode>(
    () => VIEW_MODES.find((mode) => mode === localStorage.getItem(VIEW_MODE_KEY)) ?? 'map',
  );
  const [selected, setSelected] = useState<string | null>(null);
  const view = useRef<EditorView | null>(null);
  const goTo = useCallback((line: number): void => setChosenReveal({ line, focus: true }), []);
  const select = (id: string): void => {
    setSelected(id);
    const place = derived?.places[id];
    if (place !== undefined) setChosenReveal({ line: place.line, focus: false });
  };
  const onLine = useCallback(
    (line: number) => {
      const id = derived === null ? null : statementAt(derived.places, line);
      const declaration = id === null || derived === null ? undefined : declarationOf(derived.model, id);
      setSelected(declaration?.id ?? null);
    },
    [derived],
  );
  const choose = (next: ViewMode): void => {
    localStorage.setItem(VIEW_MODE_KEY, next);
    setViewMode(next);
  };
  const diagnostics = derived?.diagnostics ?? NONE;
  const row =
    outline === null ? undefined : outlineRows(outline).find(({ resource }) => resource.id === path);
  const range = useSelectedRange(selected);
  const [told, setTold] = useState<string | null>(null);
  const context = useEditorContext(setTold);
  const viewSwitch = <ViewSwitch viewMode={viewMode} onChoose={choose} />;
  return (
    <div className="model-page">
      <SplitPanels name="model" first={660}>
        <NotationPanel
          diagnostics={diagnostics}
          reveal={chosenReveal ?? askedReveal}
          selected={range}
          context={context}
          viewRef={view}
          told={told}
          onReveal={goTo}
          onLine={onLine}
        />
        {viewMode === 'reference' ? (
          <ReferencePanel viewSwitch={viewSwitch} />
        ) : viewMode === 'map' && derived !== null ? (
          <MapPanel viewSwitch={viewSwitch} model={derived.model} selected={selected} onSelect={select} />
        ) : (
          <TreePanel
            viewSwitch={viewSwitch}
            outline={outline}
            broken={diagnostics.length > 0}
            selected={path}
            onSelect={setPath}
          />
        )}
      </SplitPanels>
      <ImpactStrip
        row={viewMode === 'paths' ? row : undefined}
        statement={viewMode === 'map' ? selected : null}
        onStatement={goTo}
      />
    </div>
  );
}

interface ViewSwitchProps {
  readonly viewMode: ViewMode;
  readonly onChoose: (viewMode: ViewMode) => void;
}

function ViewSwitch({ viewMode, onChoose }: ViewSwitchProps): React.JSX.Element {
  return (
    <Explained by="model.notation">
      <Segmented<ViewMode>
        value={viewMode}
        onChange={onChoose}
        options={VIEW_MODES.map((mode) => ({ value: mode, label: VIEW_MODE_NAMES[mode] }))}
      />
    </Explained>
  );
}

/** The lines of the selected statement, while it stands in the text. */
function useSelectedRange(selected: string | null): LineRange | null {
  const place = useAppSelector((state) =>
    selected === null ? undefined : state.derived.reading?.places[selected],
  );
  const [first, last] = [place?.line, place?.endLine];
  return useMemo(() => (first === undefined || last === undefined ? null : { first, last }), [first, last]);
}

function useEditorContext(tell: (message: string) => void): EditorContext {
  const derived = useAppSelector((state) => state.derived.reading);
  const derivation = useDerivation();
  return useMemo(
    () => ({
      tell,
      implied: (line) => {
        const id = derived === null ? null : statementAt(derived.places, line);
        return id === null ? Promise.resolve(null) : derivation.implied(id);
      },
    }),
    [derived, derivation, tell],
  );
}
