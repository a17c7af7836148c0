import {
  indexModel,
  ownsItself,
  roleOf,
  type Entity,
  type Model,
  type Relationship,
} from '@isomeros/core/model';
import { amount } from '../../app/parts/amount.js';

/** An entity on the map. Sizes are in pixels at scale 1. */
export interface MapNode {
  readonly name: string;
  readonly id: string;
  /** Under the name: how many attributes, the key, a life cycle. */
  readonly note: string;
  /** Nothing owns it. */
  readonly standsAlone: boolean;
  readonly width: number;
  readonly height: number;
}

/** A relationship on the map, drawn from the upper to the lower end. */
export interface MapEdge {
  readonly id: string;
  readonly kind: Relationship['kind'];
  readonly upper: string;
  readonly lower: string;
  /** Whether an arrow points at the upper end: the lower one refers to it. */
  readonly optional: boolean;
  readonly label: string;
  /** The value that the pairs carry. */
  readonly carrying: string | null;
}

export interface MapGraph {
  readonly nodes: readonly MapNode[];
  readonly edges: readonly MapEdge[];
  readonly values: readonly string[];
  /** Whether the nodes leave room for what is said of them. */
  readonly hasNotes: boolean;
}

const LETTER = 7.3;
const SMALL_LETTER = 6.4;
const NODE_HEIGHT = 40;
const NAME_HEIGHT = 26;

/** What a model looks like on the map, before it is laid out. */
export function mapGraph(model: Model): MapGraph {
  const index = indexModel(model);
  return {
    nodes: [...index.entities.values()].map((entity) => {
      const owner = index.ownerOf.get(entity.name);
      const note = noteOf(entity);
      const width = Math.max(104, entity.name.length * LETTER + 22, note.length * SMALL_LETTER + 22);
      const standsAlone = owner === undefined || ownsItself(owner);
      return {
        name: entity.name,
        id: entity.id,
        note,
        standsAlone,
        width: Math.ceil(width),
        height: NODE_HEIGHT,
      };
    }),
    edges: index.relationships.map(edgeOf),
    values: [...index.values.keys()],
    hasNotes: true,
  };
}

/** The same map with nothing but the names on it. */
export const namesOnly = (graph: MapGraph): MapGraph => ({
  ...graph,
  hasNotes: false,
  nodes: graph.nodes.map((node) => ({
    ...node,
    width: Math.max(56, Math.ceil(node.name.length * LETTER + 18)),
    height: NAME_HEIGHT,
  })),
});

function noteOf(entity: Entity): string {
  const count = entity.attributes.length;
  const key = entity.attributes.find((attribute) => attribute.key !== null);
  const parts = [
    amount(count, 'attribute'),
    ...(key === undefined ? [] : [`key ${key.name}`]),
    ...(entity.attributes.some(({ lifeCycle }) => lifeCycle !== null) ? ['life cycle'] : []),
  ];
  return parts.join(', ');
}

/** Owners stand above what they own, and what is referred to above what refers. */
function edgeOf(relationship: Relationship): MapEdge {
  const { id, from, to } = relationship;
  const role = roleOf(relationship);
  switch (relationship.kind) {
    case 'owns':
      return {
        id,
        kind: 'owns',
        upper: from,
        lower: to,
        optional: relationship.cardinality === 'optional',
        label: `${role}, ${relationship.cardinality}`,
        carrying: null,
      };
    case 'refers':
      return {
        id,
        kind: 'refers',
        upper: to,
        lower: from,
        optional: relationship.cardinality === 'optional',
        label: role,
        carrying: null,
      };
    case 'pairs':
      return {
        id,
        kind: 'pairs',
        upper: from,
        lower: to,
        optional: false,
        label: role,
        carrying: relationship.carrying,
      };
  }
}

export const labelWidth = (edge: MapEdge): number =>
  Math.ceil((edge.label.length + (edge.carrying?.length ?? 0)) * SMALL_LETTER + 14);
