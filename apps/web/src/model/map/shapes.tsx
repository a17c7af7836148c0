import type { PlacedEdge, PlacedNode, Point } from './placed.js';

interface NodeProps {
  readonly node: PlacedNode;
  readonly selected: boolean;
  /** Whether the scale leaves room for the smaller text. */
  readonly detail: boolean;
  readonly onSelect: () => void;
  readonly onOpen: () => void;
}

/** An entity: a sheet with its name; a heavy top edge where it stands alone. */
export function MapNodeShape({ node, selected, detail, onSelect, onOpen }: NodeProps): React.JSX.Element {
  const { x, y, width, height, name, note, standsAlone } = node;
  return (
    <g
      className={selected ? 'map-node selected' : 'map-node'}
      transform={`translate(${x} ${y})`}
      onClick={onSelect}
      onDoubleClick={onOpen}
      role="button"
      aria-label={detail ? `${name} ${note}` : `${name}, ${note}`}
    >
      <rect width={width} height={height} rx="4" />
      {standsAlone && <path className="alone" d={`M2 1h${width - 4}`} />}
      <text className="name" x="9" y="17">
        {name}
      </text>{' '}
      {detail && (
        <text className="note" x="9" y="32">
          {note}
        </text>
      )}
    </g>
  );
}

interface EdgeProps {
  readonly edge: PlacedEdge;
  readonly lit: boolean;
  /** Whether the label is seen before the line is pointed at. */
  readonly hasLabel: boolean;
  readonly onSelect: () => void;
  readonly onOpen: () => void;
}

const path = (points: readonly Point[]): string =>
  points.map(({ x, y }, index) => `${index === 0 ? 'M' : 'L'}${x} ${y}`).join('');

/** A relationship: a heavy line owns, an arrow refers (dashed where it may be unset), a double line pairs. */
export function MapEdgeShape({ edge, lit, hasLabel, onSelect, onOpen }: EdgeProps): React.JSX.Element {
  const line = path(edge.points);
  const [first] = edge.points;
  const classes = ['map-edge', edge.kind, edge.optional ? 'optional' : '', lit ? 'lit' : ''];
  const text = edge.carrying === null ? edge.label : `${edge.label} · ${edge.carrying}`;
  return (
    <g
      className={classes.join(' ')}
      onClick={onSelect}
      onDoubleClick={onOpen}
      role="button"
      aria-label={`${edge.upper} ${edge.kind} ${edge.lower}, ${edge.label}`}
    >
      <path className="reach" d={line} />
      <path className="line" d={line} />
      {edge.kind === 'pairs' && <path className="gap" d={line} />}
      {edge.kind === 'refers' && first !== undefined && (
        <path
          className="head"
          d={`M${first.x - 4.5} ${first.y + 7}L${first.x} ${first.y + 0.5}L${first.x + 4.5} ${first.y + 7}`}
        />
      )}
      <text
        className={hasLabel ? 'label' : 'label waits'}
        x={edge.labelAt.x}
        y={edge.labelAt.y + 4}
        textAnchor="middle"
      >
        {text}
      </text>
    </g>
  );
}
