import type { PlacedMap, PlacedNode, Point } from './placed.js';

/** What part of a map is seen: the map's point at the upper left, and how many pixels one of its units takes. */
export interface View extends Point {
  readonly scale: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

export const MIN_SCALE = 0.08;
export const MAX_SCALE = 2;

const clampScale = (scale: number): number => Math.max(MIN_SCALE, Math.min(MAX_SCALE, scale));

/** All of the map, centred, never larger than life. */
export function fit(map: Size, window: Size): View {
  const scale = clampScale(
    Math.min(1, window.width / Math.max(1, map.width), window.height / Math.max(1, map.height)),
  );
  return { scale, x: (map.width - window.width / scale) / 2, y: (map.height - window.height / scale) / 2 };
}

/** Below this scale names cannot be read. */
const READABLE = 0.5;
const FIRST_SCALE = 0.75;

/** What is seen first: all of the map where that can be read, else the upper end of it. */
export function begin(map: PlacedMap, window: Size): View {
  const whole = fit(map, window);
  const [first] = [...map.nodes].sort((a, b) => a.y - b.y || a.x - b.x);
  if (whole.scale >= READABLE || first === undefined) return whole;
  const [width, height] = [window.width / FIRST_SCALE, window.height / FIRST_SCALE];
  return {
    scale: FIRST_SCALE,
    x: first.x + first.width / 2 - width / 2,
    y: Math.min(first.y - 24, map.height - height),
  };
}

/** Nearer or further, with the point under the pointer staying where it is. */
export function zoomAt(view: View, at: Point, factor: number): View {
  const scale = clampScale(view.scale * factor);
  return {
    scale,
    x: view.x + at.x / view.scale - at.x / scale,
    y: view.y + at.y / view.scale - at.y / scale,
  };
}

/** Brings a node into view with as little movement as possible. */
export function scrollTo(view: View, node: PlacedNode, window: Size): View {
  const margin = 24 / view.scale;
  const shift = (from: number, size: number, start: number, length: number): number => {
    if (start - margin < from) return start - margin;
    if (start + length + margin > from + size) return start + length + margin - size;
    return from;
  };
  return {
    ...view,
    x: shift(view.x, window.width / view.scale, node.x, node.width),
    y: shift(view.y, window.height / view.scale, node.y, node.height),
  };
}

const STEPS: Readonly<Record<string, Point>> = {
  ArrowUp: { x: 0, y: -1 },
  ArrowDown: { x: 0, y: 1 },
  ArrowLeft: { x: -1, y: 0 },
  ArrowRight: { x: 1, y: 0 },
};

/** The node an arrow key leads to: the nearest that lies more in that direction than to its sides. */
export function neighbour(
  { nodes }: PlacedMap,
  from: PlacedNode | undefined,
  key: string,
): PlacedNode | undefined {
  const step = STEPS[key];
  if (step === undefined) return undefined;
  if (from === undefined) return nodes[0];
  const middle = (node: PlacedNode): Point => ({ x: node.x + node.width / 2, y: node.y + node.height / 2 });
  const start = middle(from);
  let best: { readonly node: PlacedNode; readonly cost: number } | undefined;
  for (const node of nodes) {
    const to = middle(node);
    const along = (to.x - start.x) * step.x + (to.y - start.y) * step.y;
    const across = Math.abs((to.x - start.x) * step.y) + Math.abs((to.y - start.y) * step.x);
    if (along <= 1 || across > along * 2.5) continue;
    const cost = along + across * 1.5;
    if (best === undefined || cost < best.cost) best = { node, cost };
  }
  return best?.node;
}

/** Whether a box is at least partly in view. */
export function isVisible(view: View, window: Size, box: Point & Size): boolean {
  return (
    box.x + box.width >= view.x &&
    box.y + box.height >= view.y &&
    box.x <= view.x + window.width / view.scale &&
    box.y <= view.y + window.height / view.scale
  );
}
