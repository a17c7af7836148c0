import { findArrangement, withEdit, type Choices } from '@isomeros/core/arrangement';
import type { OutlineResource } from '@isomeros/core/contract';
import { useMemo, useState } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import type { Consequence, Step } from '../design/derivation/protocol.js';
import { choicesMade } from '../design/documentSlice.js';
import { useConsequences } from '../design/useConsequences.js';
import { movesOf, type DropTarget, type Move } from './moves.js';
import { arrangementName } from '../design/viewSlice.js';

/** A branch that is being moved: by pointer until it is let go, or by keyboard until it is chosen. */
export interface Moving {
  readonly resource: OutlineResource;
  /** Where it can be let go at all. */
  readonly targets: ReadonlySet<DropTarget>;
  readonly target: DropTarget | null;
  /** The places it would get there. */
  readonly moves: readonly Move[];
  readonly chosen: Move | null;
}

export interface MovingControl {
  readonly moving: Moving | null;
  readonly consequenceOf: (move: Move) => Consequence | null;
  /** Whether there is another place for it. */
  readonly begin: (resource: OutlineResource, target?: DropTarget) => boolean;
  /** Where it could be let go. */
  readonly targetsOf: (resource: OutlineResource) => readonly DropTarget[];
  readonly over: (target: DropTarget | null) => void;
  readonly choose: (index: number) => void;
  readonly finish: () => void;
  readonly cancel: () => void;
}

const NONE: readonly Step[] = [];

/** Moves branches of the path tree, with what follows known before anything is changed. */
export function useMoving(): MovingControl {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const outline = useAppSelector((state) => state.derived.outline);
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const dispatch = useAppDispatch();
  const [all, setAll] = useState<{
    readonly resource: OutlineResource;
    readonly moves: readonly Move[];
  } | null>(null);
  const [target, setTarget] = useState<DropTarget | null>(null);
  const [index, setIndex] = useState(0);
  const placed = ({ of: kind, subject, place }: Move): Choices =>
    withEdit(choices, arrangement, 'placements', { kind, subject, place });
  const stepOf = (move: Move): Step => ({ kind: 'choices', choices: placed(move) });
  const steps = useMemo(
    () => (all === null ? NONE : all.moves.map(stepOf)),
    // The choices do not change while something is moved.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [all],
  );
  const consequences = useConsequences(steps, 0);
  const moves = all?.moves.filter((move) => move.target === target) ?? [];
  const moving: Moving | null =
    all === null
      ? null
      : {
          resource: all.resource,
          targets: new Set(all.moves.map((move) => move.target)),
          target,
          moves,
          chosen: moves[Math.min(index, moves.length - 1)] ?? null,
        };
  const find = (resource: OutlineResource): readonly Move[] => {
    if (outline === null || model === null) return [];
    const placements = findArrangement(choices, arrangement)?.placements ?? {};
    return movesOf(resource, outline, model, placements);
  };
  const cancel = (): void => {
    setAll(null);
    setTarget(null);
    setIndex(0);
  };
  return {
    moving,
    consequenceOf: (move) => consequences.get(JSON.stringify(stepOf(move))) ?? null,
    targetsOf: (resource) => [...new Set(find(resource).map((move) => move.target))],
    begin: (resource, wanted) => {
      const found = find(resource);
      const first = wanted === undefined ? found : found.filter((move) => move.target === wanted);
      if (first.length === 0) return false;
      setAll({ resource, moves: found });
      setTarget(wanted ?? null);
      setIndex(0);
      return true;
    },
    over: (next) => {
      if (next === target) return;
      setTarget(next);
      setIndex(0);
    },
    choose: (next) => {
      if (next >= 0 && next < moves.length) setIndex(next);
    },
    finish: () => {
      const { chosen } = moving ?? { chosen: null };
      if (chosen !== null) dispatch(choicesMade(placed(chosen)));
      cancel();
    },
    cancel,
  };
}
