import ElkConstructor, { type ELK, type ElkExtendedEdge, type ElkNode } from 'elkjs/lib/elk-api.js';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';
import { labelWidth, type MapEdge, type MapGraph, type MapNode } from './graph.js';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface PlacedNode extends MapNode, Point {}

export interface PlacedEdge extends MapEdge {
  /** From the upper end to the lower one. */
  readonly points: readonly Point[];
  /** The middle of the label. */
  readonly labelAt: Point;
}

export interface PlacedMap {
  readonly nodes: readonly PlacedNode[];
  readonly edges: readonly PlacedEdge[];
  readonly values: readonly string[];
  readonly width: number;
  readonly height: number;
}

let elk: ELK | null = null;

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'DOWN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.spacing.nodeNode': '26',
  'elk.spacing.edgeNode': '18',
  'elk.spacing.edgeEdge': '14',
  'elk.spacing.componentComponent': '36',
  'elk.layered.spacing.nodeNodeBetweenLayers': '46',
  'elk.layered.spacing.edgeNodeBetweenLayers': '18',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.spacing.nodeSelfLoop': '16',
  'elk.edgeLabels.inline': 'false',
  'elk.padding': '[top=20,left=20,bottom=20,right=20]',
};

const LABEL_HEIGHT = 16;

/** Lays a map out in layers, in a worker. */
export async function layOut(graph: MapGraph): Promise<PlacedMap> {
  elk ??= new ElkConstructor({ workerUrl });
  const laidOut = await elk.layout({
    id: 'map',
    layoutOptions: OPTIONS,
    children: graph.nodes.map(({ name, width, height }) => ({ id: name, width, height })),
    edges: graph.edges.map((edge) => ({
      id: edge.id,
      sources: [edge.upper],
      targets: [edge.lower],
      labels: [{ text: edge.label, width: labelWidth(edge), height: LABEL_HEIGHT }],
      layoutOptions: { 'elk.layered.priority.direction': edge.kind === 'owns' ? '10' : '1' },
    })),
  });
  return placed(graph, laidOut);
}

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
  const labelAt = {
    x: (label?.x ?? 0) + (label?.width ?? 0) / 2,
    y: (label?.y ?? 0) + (label?.height ?? 0) / 2,
  };
  return { ...edge, points, labelAt };
}
