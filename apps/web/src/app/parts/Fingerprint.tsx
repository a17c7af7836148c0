import { greatest } from '@isomeros/core/model';
import type { Effect, FingerprintColumn } from '@isomeros/core/contract';
import { amount } from './amount.js';

const COLUMN = 7;
const STEP = 5;
const MARK = 7;

interface Props {
  readonly columns: readonly FingerprintColumn[];
  /** Columns drawn at the most; the rest is told as a number. */
  readonly most?: number;
  readonly scale?: number;
}

/** A design drawn small: a column a path in tree order, its operations above a ground line, its depth below. */
export function Fingerprint({ columns, most = 54, scale = 1 }: Props): React.JSX.Element {
  const shown = columns.slice(0, most);
  const high = greatest(
    shown.map(({ effects }) => effects.length),
    1,
  );
  const deep = greatest(
    shown.map(({ depth }) => depth),
    0,
  );
  const ground = high * MARK + 3;
  const left = columns.length - shown.length;
  const width = shown.length * COLUMN + (left > 0 ? 40 : 1);
  const height = ground + deep * STEP + 2;
  return (
    <svg
      className="fingerprint"
      width={width * scale}
      height={height * scale}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${amount(columns.length, 'path')}, at most ${deep} deep`}
    >
      <path d={depthArea(shown, ground)} fill="var(--tint)" />
      <path d={depthLine(shown, ground)} fill="none" stroke="var(--quiet)" strokeWidth="1" />
      <line x1="0" x2={shown.length * COLUMN} y1={ground} y2={ground} stroke="var(--ink)" />
      {shown.flatMap(({ effects }, column) =>
        effects.map((effect, row) => (
          <Dot
            key={`${column}-${row}`}
            effect={effect}
            x={column * COLUMN + COLUMN / 2}
            y={ground - 4.5 - row * MARK}
          />
        )),
      )}
      {left > 0 && (
        <text x={shown.length * COLUMN + 5} y={ground + 4} fontSize="10" fill="var(--quiet)">
          +{left}
        </text>
      )}
    </svg>
  );
}

function Dot({
  effect,
  x,
  y,
}: {
  readonly effect: Effect;
  readonly x: number;
  readonly y: number;
}): React.JSX.Element {
  return (
    <g color="var(--ink)">
      <circle
        cx={x}
        cy={y}
        r="2.4"
        fill={effect === 'neither' ? 'currentColor' : 'var(--sheet)'}
        stroke="currentColor"
        strokeWidth="1"
      />
      {effect === 'idempotent' && <path d={`M${x} ${y - 2.4}a2.4 2.4 0 0 0 0 4.8z`} fill="currentColor" />}
    </g>
  );
}

const depthArea = (columns: readonly FingerprintColumn[], ground: number): string =>
  columns
    .map(({ depth }, index) => `M${index * COLUMN} ${ground}v${depth * STEP}h${COLUMN}v${-depth * STEP}z`)
    .join('');

function depthLine(columns: readonly FingerprintColumn[], ground: number): string {
  return columns
    .map(
      ({ depth }, index) => `${index === 0 ? 'M' : 'L'}${index * COLUMN} ${ground + depth * STEP}h${COLUMN}`,
    )
    .join('');
}
