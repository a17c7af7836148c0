import ElkConstructor, {
  type ELK,
  type ElkExtendedEdge,
  type ElkNode,
  type ElkPort,
  type LayoutOptions,
} from 'elkjs/lib/elk-api.js';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';
import { labelWidth, namesOnly, type MapEdge, type MapGraph } from './graph.js';
import type { PlacedEdge, PlacedMap } from './placed.js';
import { fit, type Size } from './view.js';

/** Spacings of a map that shows everything. */
const ROOMY = {
  'elk.spacing.nodeNode': '26',
  'elk.spacing.edgeNode': '18',
  'elk.spacing.edgeEdge': '14',
  'elk.layered.spacing.nodeNodeBetweenLayers': '46',
  'elk.layered.spacing.edgeNodeBetweenLayers': '18',
  'elk.padding': '[top=20,left=20,bottom=20,right=20]',
};

/** Spacings of a map of names. */
const CLOSE = {
  'elk.spacing.nodeNode': '16',
  'elk.spacing.edgeNode': '10',
  'elk.spacing.edgeEdge': '6',
  'elk.layered.spacing.nodeNodeBetweenLayers': '26',
  'elk.layered.spacing.edgeNodeBetweenLayers': '8',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '6',
  'elk.layered.thoroughness': '2',
  'elk.padding': '[top=10,left=10,bottom=10,right=10]',
};

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'DOWN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.spacing.componentComponent': '36',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.spacing.nodeSelfLoop': '16',
  'elk.edgeLabels.inline': 'false',
};

const LABEL_HEIGHT = 16;
/** Where all of it is seen at this scale, a map shows everything. */
const LEGIBLE = 0.62;
/** A map of more entities is not seen as a whole: it is walked through. */
const MOST_FOLDED = 60;
/** So many entities stand beside each other at most, tried one after the other until the map fills its window. */
const WIDTHS = [null, 8, 6, 5, 4, 3] as const;
/** A map that is seen at this scale is wide enough. */
const LARGE_ENOUGH = 0.95;

/** Lays maps out in layers, in a worker that begins with the first one. */
export class MapLayout {
  private elk: ELK | null = null;

  /**
   * Shows everything where all of it can be read in a window of the size; else the names alone, with wide layers
   * folded until the map has the shape of the window.
   */
  async layOut(graph: MapGraph, window: Size): Promise<PlacedMap> {
    const full = await this.full(graph);
    if (fit(full, window).scale >= LEGIBLE || graph.nodes.length > MOST_FOLDED) return full;
    const names = namesOnly(graph);
    let best = full;
    for (const most of WIDTHS) {
      const folded = await this.folded(names, most);
      const scale = fit(folded, window).scale;
      if (best === full || scale > fit(best, window).scale) best = folded;
      if (scale >= LARGE_ENOUGH) break;
    }
    return best;
  }

  end(): void {
    this.elk?.terminateWorker();
    this.elk = null;
  }

  private async full(graph: MapGraph): Promise<PlacedMap> {
    const laidOut = await this.layered({
      id: 'map',
      layoutOptions: { ...OPTIONS, ...ROOMY },
      children: graph.nodes.map(({ name, width, height }) => ({ id: name, width, height })),
      edges: graph.edges.map((edge) => ({
        id: edge.id,
        sources: [edge.upper],
        targets: [edge.lower],
        labels: [{ text: edge.label, width: labelWidth(edge), height: LABEL_HEIGHT }],
        layoutOptions: priorityOf(edge),
      })),
    });
    return placed(graph, laidOut);
  }

  /** `most`: how many stand beside each other; as many as there are where it is `null`. */
  private async folded(graph: MapGraph, most: number | null): Promise<PlacedMap> {
    const bound =
      most === null
        ? {}
        : {
            'elk.layered.layering.strategy': 'COFFMAN_GRAHAM',
            'elk.layered.layering.coffmanGraham.layerBound': String(most),
          };
    const laidOut = await this.layered({
      id: 'map',
      layoutOptions: { ...OPTIONS, ...CLOSE, ...bound },
      children: graph.nodes.map(({ name, width, height }) => ({
        id: name,
        width,
        height,
        layoutOptions: { 'elk.portConstraints': 'FIXED_SIDE' },
        ports: LINES.flatMap((line) => [
          { id: `${name} ${line} below`, ...port('SOUTH') },
          { id: `${name} ${line} above`, ...port('NORTH') },
        ]),
      })),
      // Lines of a kind share their way, or long ones would be wider than what they lead past.
      edges: graph.edges.map((edge) => ({
        id: edge.id,
        sources: [`${edge.upper} ${lineOf(edge)} below`],
        targets: [`${edge.lower} ${lineOf(edge)} above`],
        layoutOptions: priorityOf(edge),
      })),
    });
    return placed(graph, laidOut);
  }

  private layered(graph: ElkNode): Promise<ElkNode> {
    this.elk ??= new ElkConstructor({ workerUrl });
    return this.elk.layout(graph);
  }
}

/** Heavy lines and light ones. */
const LINES = ['owned', 'other'] as const;
const lineOf = ({ kind }: MapEdge): (typeof LINES)[number] => (kind === 'owns' ? 'owned' : 'other');

const port = (side: 'NORTH' | 'SOUTH'): Omit<ElkPort, 'id'> => ({
  width: 1,
  height: 1,
  layoutOptions: { 'elk.port.side': side },
});

/** Owners stand above what they own, before anything else. */
const priorityOf = ({ kind }: MapEdge): LayoutOptions => ({
  'elk.layered.priority.direction': kind === 'owns' ? '10' : '1',
});

function placed(graph: MapGraph, laidOut: ElkNode): PlacedMap {
  const nodes = new Map((laidOut.children ?? []).map((node) => [node.id, node]));
  const edges = new Map((laidOut.edges ?? []).map((edge) => [edge.id, edge]));
  return {
    nodes: graph.nodes.map((node) => ({
      ...node,
      x: nodes.get(node.name)?.x ?? 0,
      y: nodes.get(node.name)?.y ?? 0,
    })),
    edges: graph.edges.map((edge) => placedEdge(edge, edges.get(edge.id))),
    values: graph.values,
    hasNotes: graph.hasNotes,
    width: laidOut.width ?? 0,
    height: laidOut.height ?? 0,
  };
}

function placedEdge(edge: MapEdge, laidOut: ElkExtendedEdge | undefined): PlacedEdge {
  const sections = laidOut?.sections ?? [];
  const points = sections.flatMap(({ startPoint, bendPoints, endPoint }) => [
    startPoint,
    ...(bendPoints ?? []),
    endPoint,
  ]);
  const label = laidOut?.labels?.[0];
  const end = points.at(-1) ?? { x: 0, y: 0 };
  const labelAt =
    label === undefined
      ? { x: end.x, y: end.y - LABEL_HEIGHT / 2 }
      : { x: (label.x ?? 0) + (label.width ?? 0) / 2, y: (label.y ?? 0) + (label.height ?? 0) / 2 };
  return { ...edge, points, labelAt };
}
