import type { Model } from '@isomeros/core/model';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useAppDispatch, useAppStore } from '../../app/store.js';
import { mapLeft } from '../../design/viewSlice.js';
import { mapGraph, type MapGraph } from './graph.js';
import { MapLayout } from './layout.js';
import type { PlacedEdge, PlacedMap, PlacedNode } from './placed.js';
import { MapEdgeShape, MapNodeShape } from './shapes.js';
import { begin, fit, isVisible, neighbour, scrollTo, zoomAt, type Size, type View } from './view.js';
import { Legend } from './Legend.js';
import { Overview } from './Overview.js';
import './map.css';

interface Props {
  readonly model: Model;
  /** The identity of the selected entity or relationship. */
  readonly selected: string | null;
  readonly onSelect: (id: string) => void;
  readonly onOpen: (id: string) => void;
}

/** The entities of a model in layers, owners above what they own. */
export function ModelMap({ model, selected, onSelect, onOpen }: Props): React.JSX.Element {
  const host = useRef<HTMLDivElement>(null);
  const window = useSize(host);
  const map = useLayout(model, window);
  const [view, setView] = useKeptView();
  const shown = view ?? (map === null || window === null ? null : begin(map, window));
  const node = map?.nodes.find(({ id }) => id === selected);
  useReveal(map, node, window, setView);
  const isEmpty = !model.declarations.some(({ kind }) => kind === 'entity');
  const ready = map !== null && window !== null && shown !== null;
  const onKeyDown = (event: KeyboardEvent): void => {
    if (!ready) return;
    const next = neighbour(map, node, event.key);
    const middle = { x: window.width / 2, y: window.height / 2 };
    if (next !== undefined) onSelect(next.id);
    else if (event.key === 'Enter' && selected !== null) onOpen(selected);
    else if (event.key === '+' || event.key === '=') setView(zoomAt(shown, middle, 1.25));
    else if (event.key === '-') setView(zoomAt(shown, middle, 0.8));
    else if (event.key === '0') setView(null);
    else return;
    event.preventDefault();
  };
  const pan = usePan(shown, setView);
  useWheelZoom(host, shown, setView);
  return (
    <div className="map-frame">
      <div
        className="model-map"
        ref={host}
        tabIndex={0}
        role="group"
        aria-label="Map"
        onKeyDown={onKeyDown}
        {...pan}
      >
        {ready && (
          <svg width={window.width} height={window.height} role="presentation">
            <g transform={`scale(${shown.scale}) translate(${-shown.x} ${-shown.y})`}>
              <Drawing
                map={map}
                view={shown}
                window={window}
                selected={selected}
                onSelect={onSelect}
                onOpen={onOpen}
              />
            </g>
          </svg>
        )}
        {isEmpty && <p className="empty-note">No entities yet. Type one: entity Route</p>}
        {ready && map.nodes.length > 40 && (
          <Overview map={map} view={shown} window={window} onMove={setView} />
        )}
      </div>
      <Legend map={map} onFit={() => map !== null && window !== null && setView(fit(map, window))} />
    </div>
  );
}

interface DrawingProps extends Omit<Props, 'model'> {
  readonly map: PlacedMap;
  readonly view: View;
  readonly window: Size;
}

/** Only what is in view is drawn. */
function Drawing({ map, view, window, selected, onSelect, onOpen }: DrawingProps): React.JSX.Element {
  const node = map.nodes.find(({ id }) => id === selected);
  const touches = (edge: PlacedEdge): boolean =>
    edge.id === selected || edge.upper === node?.name || edge.lower === node?.name;
  // Without notes only the labels of what is looked at have room.
  const detail = view.scale > 0.35;
  const hasLabel = (edge: PlacedEdge): boolean => (map.hasNotes ? detail : touches(edge));
  return (
    <>
      {map.edges
        .filter((edge) => isVisible(view, window, boxOf(edge)))
        .map((edge) => (
          <MapEdgeShape
            key={edge.id}
            edge={edge}
            lit={touches(edge)}
            hasLabel={hasLabel(edge)}
            onSelect={() => onSelect(edge.id)}
            onOpen={() => onOpen(edge.id)}
          />
        ))}
      {map.nodes
        .filter((candidate) => isVisible(view, window, candidate))
        .map((candidate) => (
          <MapNodeShape
            key={candidate.name}
            node={candidate}
            selected={candidate.id === selected}
            detail={detail && map.hasNotes}
            onSelect={() => onSelect(candidate.id)}
            onOpen={() => onOpen(candidate.id)}
          />
        ))}
    </>
  );
}

function boxOf({ points, labelAt }: PlacedEdge): { x: number; y: number; width: number; height: number } {
  let [left, right, top, bottom] = [labelAt.x, labelAt.x, labelAt.y, labelAt.y];
  for (const { x, y } of points) {
    [left, right] = [Math.min(left, x), Math.max(right, x)];
    [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
  }
  return { x: left - 60, y: top - 20, width: right - left + 120, height: bottom - top + 40 };
}

/** The layout of the latest model for a window; the one before stays until it is there. */
function useLayout(model: Model, window: Size | null): PlacedMap | null {
  const graph = useMemo(() => mapGraph(model), [model]);
  const shape = JSON.stringify(graph);
  // Of a window that is made larger by hand only its shape, roughly, asks for another layout.
  const [width, height] = [roughly(window?.width), roughly(window?.height)];
  const [placed, setPlaced] = useState<PlacedMap | null>(null);
  const layout = useRef<MapLayout | null>(null);
  useEffect(
    () => () => {
      layout.current?.end();
      layout.current = null;
    },
    [],
  );
  useEffect(() => {
    if (width === 0 || height === 0) return;
    let wanted = true;
    layout.current ??= new MapLayout();
    void layout.current.layOut(JSON.parse(shape) as MapGraph, { width, height }).then((map) => {
      if (wanted) setPlaced(map);
    });
    return () => {
      wanted = false;
    };
  }, [shape, width, height]);
  return placed;
}

const ROUGH = 80;
const roughly = (length: number | undefined): number => Math.round((length ?? 0) / ROUGH) * ROUGH;

/** What was seen last of this design's map; `null` is all of it. */
function useKeptView(): [View | null, SetView] {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const [view, setView] = useState(() => store.getState().view.map);
  const latest = useRef(view);
  latest.current = view;
  useEffect(
    () => () => {
      dispatch(mapLeft(latest.current));
    },
    [dispatch],
  );
  return [view, setView];
}

function useSize(host: React.RefObject<HTMLElement | null>): Size | null {
  const [size, setSize] = useState<Size | null>(null);
  useEffect(() => {
    const element = host.current;
    if (element === null) return;
    const observer = new ResizeObserver(() =>
      setSize({ width: element.clientWidth, height: element.clientHeight }),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, [host]);
  return size;
}

type SetView = (next: View | null | ((view: View | null) => View | null)) => void;

/** A selection made elsewhere is brought into view, unless all of the map is seen anyway. */
function useReveal(
  map: PlacedMap | null,
  node: PlacedNode | undefined,
  window: Size | null,
  setView: SetView,
): void {
  useEffect(() => {
    if (map !== null && node !== undefined && window !== null)
      setView((view) => (view === null ? null : scrollTo(view, node, window)));
  }, [map, node, window, setView]);
}

type PointerHandler = (event: PointerEvent<HTMLElement>) => void;

function usePan(
  view: View | null,
  setView: SetView,
): { onPointerDown: PointerHandler; onPointerMove: PointerHandler; onPointerUp: PointerHandler } {
  const start = useRef<{ x: number; y: number; view: View } | null>(null);
  return {
    onPointerDown: (event) => {
      if (
        event.button === 0 &&
        view !== null &&
        event.target instanceof Element &&
        event.target.closest('.map-node, .map-edge, button') === null
      ) {
        start.current = { x: event.clientX, y: event.clientY, view };
      }
    },
    onPointerMove: (event) => {
      const from = start.current;
      if (from === null) return;
      const { scale } = from.view;
      setView({
        scale,
        x: from.view.x - (event.clientX - from.x) / scale,
        y: from.view.y - (event.clientY - from.y) / scale,
      });
    },
    onPointerUp: () => {
      start.current = null;
    },
  };
}

/** The wheel zooms; React's own handler is passive and could not keep the page from scrolling. */
function useWheelZoom(host: React.RefObject<HTMLElement | null>, view: View | null, setView: SetView): void {
  useEffect(() => {
    const element = host.current;
    if (element === null || view === null) return;
    const onWheel = (event: WheelEvent): void => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const at = { x: event.clientX - box.left, y: event.clientY - box.top };
      setView(zoomAt(view, at, Math.exp(-event.deltaY / 400)));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [host, view, setView]);
}
