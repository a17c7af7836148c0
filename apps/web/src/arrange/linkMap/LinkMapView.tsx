import type { Effect } from '@isomeros/core/contract';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { amount } from '../../app/parts/amount.js';
import type { Way } from '../../design/derivation/way.js';
import {
  ROW_HEIGHT,
  shortWhen,
  type LinkMap,
  type LinkedPlace,
  type DrawnStep,
} from '../../design/derivation/linkMap.js';
import { neighbourOf } from './neighbours.js';

interface Props {
  readonly map: LinkMap;
  readonly mode: 'first' | 'all';
  readonly from: string;
  readonly to: string | null;
  readonly way: Way | null;
  readonly onChoose: (resource: string | null) => void;
  readonly onBegin: (resource: string) => void;
  readonly onShow: (resource: string) => void;
}

/** What is drawn: a part of the map, with as much around it as is scrolled to at once. */
interface Part {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

const AROUND = 300;
const NODE_HEIGHT = 18;

/** The graph of links: only what is visible is drawn; arrow keys go along first ways, Enter chooses where to go. */
export function LinkMapView(props: Props): React.JSX.Element {
  const { map, mode, from, to, way, onChoose, onBegin, onShow } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const part = useVisiblePart(scroller);
  const byId = useMemo(() => new Map(map.nodes.map((node) => [node.id, node])), [map]);
  const [focused, setFocused] = useState<string | null>(null);
  const current = byId.has(focused ?? '') ? (focused ?? '') : (to ?? from);
  const onWay = new Set(way?.steps.map((step) => `${step.from} ${step.to} ${step.relation}`));
  const gone = new Map([from, ...(way?.steps.map((step) => step.to) ?? [])].map((id, at) => [id, at + 1]));
  const steps = map.steps.filter((step) => mode === 'all' || step.isFirst || onWay.has(keyOf(step)));
  const focus = (id: string): void => {
    setFocused(id);
    reveal(scroller.current, byId.get(id));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.key === 'Enter') onChoose(current);
    else if (event.key === ' ') onBegin(current);
    else if (event.key === 'Escape') onChoose(null);
    else {
      const next = neighbourOf(map, byId.get(current), event.key);
      if (next === null) return;
      focus(next);
    }
    event.preventDefault();
  };
  return (
    <div className="link-map" ref={scroller}>
      <div className="link-columns" style={{ width: map.width }}>
        {map.columns.map(({ x, requests, resources }) => (
          <span key={x} style={{ left: x }} className="quiet">
            <strong>{requests === null ? 'nothing leads here' : amount(requests, 'request')}</strong>{' '}
            {requests === 1 ? 'entry' : amount(resources, 'resource')}
          </span>
        ))}
      </div>
      <svg
        width={map.width}
        height={map.height}
        role="listbox"
        tabIndex={0}
        aria-label="Where links lead"
        aria-activedescendant={`node-${current}`}
        onKeyDown={onKeyDown}
      >
        {steps.map((step) => {
          const [begin, end] = [byId.get(step.from), byId.get(step.to)];
          if (begin === undefined || end === undefined || !isStepIn(part, begin, end)) return null;
          return (
            <Step key={keyOf(step)} step={step} from={begin} to={end} isChosen={onWay.has(keyOf(step))} />
          );
        })}
        {map.nodes.map((node) =>
          isNodeIn(part, node) ? (
            <Node
              key={node.id}
              node={node}
              at={to === null ? null : (gone.get(node.id) ?? null)}
              isFocused={node.id === current}
              onPress={() => {
                setFocused(node.id);
                onChoose(node.id);
              }}
              onOpen={() => onShow(node.id)}
            />
          ) : null,
        )}
      </svg>
    </div>
  );
}

const keyOf = ({ from, to, relation }: DrawnStep): string => `${from} ${to} ${relation}`;

function useVisiblePart(scroller: React.RefObject<HTMLDivElement | null>): Part {
  const [part, setPart] = useState<Part>({ left: 0, top: 0, right: 2_000, bottom: 1_200 });
  useEffect(() => {
    const element = scroller.current;
    if (element === null) return;
    const look = (): void => {
      const { scrollLeft: left, scrollTop: top, clientWidth, clientHeight } = element;
      setPart({ left, top, right: left + clientWidth, bottom: top + clientHeight });
    };
    look();
    const size = new ResizeObserver(look);
    size.observe(element);
    element.addEventListener('scroll', look, { passive: true });
    return () => {
      size.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, [scroller]);
  return part;
}

const isNodeIn = ({ left, top, right, bottom }: Part, { x, y, width }: LinkedPlace): boolean =>
  x < right + AROUND && x + width > left - AROUND && y < bottom + AROUND && y + ROW_HEIGHT > top - AROUND;

const isStepIn = ({ left, top, right, bottom }: Part, from: LinkedPlace, to: LinkedPlace): boolean =>
  Math.min(from.x, to.x) < right + AROUND &&
  Math.max(from.x + from.width, to.x + to.width) > left - AROUND &&
  Math.min(from.y, to.y) < bottom + AROUND &&
  Math.max(from.y, to.y) + ROW_HEIGHT > top - AROUND;

/** Scrolls as far as a resource is in view. */
function reveal(element: HTMLDivElement | null, node: LinkedPlace | undefined): void {
  if (element === null || node === undefined) return;
  const { scrollLeft, scrollTop, clientWidth, clientHeight } = element;
  if (node.y < scrollTop || node.y + 2 * ROW_HEIGHT > scrollTop + clientHeight)
    element.scrollTop = node.y - clientHeight / 2;
  if (node.x < scrollLeft || node.x + node.width > scrollLeft + clientWidth)
    element.scrollLeft = node.x + node.width - clientWidth + AROUND;
}

interface StepProps {
  readonly step: DrawnStep;
  readonly from: LinkedPlace;
  readonly to: LinkedPlace;
  readonly isChosen: boolean;
}

function Step({ step, from, to, isChosen }: StepProps): React.JSX.Element {
  const { relation, when, isFirst } = step;
  const look = `link-step ${when === null ? '' : 'sometimes'} ${isChosen ? 'chosen' : ''}`;
  const [fromY, toY] = [from.y + ROW_HEIGHT / 2, to.y + ROW_HEIGHT / 2];
  if (!isFirst && !isChosen) return <Other look={look} step={step} from={from} to={to} />;
  const start = from.x + from.width;
  const bend = start + 10;
  return (
    <g className={isChosen ? 'link-way' : ''}>
      <path className={look} d={`M${start} ${fromY}H${bend}V${toY}H${to.x - 4}`} />
      <path className={`link-arrow ${isChosen ? 'chosen' : ''}`} d={`M${to.x - 6} ${toY - 3}l5 3l-5 3`} />
      <text className="link-relation" x={to.x - (isChosen ? 28 : 12)} y={toY + 4} textAnchor="end">
        {relation}
        {when !== null && <tspan className="when"> {shortWhen(when)}</tspan>}
        <title>{when === null ? relation : `${relation}, if ${when}`}</title>
      </text>
    </g>
  );
}

/** A link by which nothing is reached first: a thin curve, its relation told when it is pointed at. */
function Other({
  look,
  step,
  from,
  to,
}: Omit<StepProps, 'isChosen'> & { readonly look: string }): React.JSX.Element {
  const [fromY, toY] = [from.y + ROW_HEIGHT / 2, to.y + ROW_HEIGHT / 2];
  const isBack = to.x <= from.x;
  const start = isBack ? from.x : from.x + from.width;
  const end = isBack ? to.x + to.width : to.x;
  const middle = (start + end) / 2;
  return (
    <path
      className={`${look} other`}
      d={`M${start} ${fromY}C${middle} ${fromY} ${middle} ${toY} ${end} ${toY}`}
    >
      <title>{`${from.path} ${step.relation} ${to.path}${step.when === null ? '' : `, if ${step.when}`}`}</title>
    </path>
  );
}

interface NodeProps {
  readonly node: LinkedPlace;
  /** Its place on the way that is chosen, from 1. */
  readonly at: number | null;
  readonly isFocused: boolean;
  readonly onPress: () => void;
  readonly onOpen: () => void;
}

function Node({ node, at, isFocused, onPress, onOpen }: NodeProps): React.JSX.Element {
  const { id, path, label, effects, requests, x, y, width } = node;
  const top = y + (ROW_HEIGHT - NODE_HEIGHT) / 2;
  const isRead = effects.includes('safe');
  const marks = x + width - effects.length * 14 - 4;
  const look = `link-node ${at === null ? '' : 'on-way'} ${isFocused ? 'focused' : ''} ${requests === null ? 'unreached' : ''} ${isRead ? '' : 'deed'}`;
  return (
    <g
      id={`node-${id}`}
      className={look}
      role="option"
      aria-selected={at !== null}
      aria-label={`${path}, ${requests === null ? 'nothing leads here' : amount(requests, 'request')}`}
      onClick={onPress}
      onDoubleClick={onOpen}
    >
      <rect x={x} y={top} width={width} height={NODE_HEIGHT} rx="3" />
      {at !== null && (
        <>
          <rect className="number" x={x - 16} y={top} width="16" height={NODE_HEIGHT} rx="3" />
          <text className="number" x={x - 8} y={top + 13} textAnchor="middle">
            {at}
          </text>
        </>
      )}
      <text className="mono" x={x + 7} y={top + 13}>
        {label}
      </text>
      {effects.map((effect, index) => (
        <Mark key={index} effect={effect} x={marks + index * 14 + 6} y={top + NODE_HEIGHT / 2} />
      ))}
      <title>{path}</title>
    </g>
  );
}

/** The mark of an effect, as everywhere: open for safe, half for idempotent, full for neither. */
const Mark = ({ effect, x, y }: { readonly effect: Effect; readonly x: number; readonly y: number }) => (
  <g className={`mark ${effect}`} transform={`translate(${x - 4} ${y - 4})`}>
    <circle cx="4" cy="4" r="3.4" />
    {effect === 'idempotent' && <path d="M4 0.6a3.4 3.4 0 0 0 0 6.8z" />}
  </g>
);
