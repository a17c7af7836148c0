import type { MapEdge, MapNode } from './graph.js';

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
  /** Whether entities are drawn with what is said of them. */
  readonly hasNotes: boolean;
  readonly width: number;
  readonly height: number;
}
