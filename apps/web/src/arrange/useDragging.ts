import type { OutlineResource } from '@isomeros/core/contract';
import { useEffect, useRef, useState, type PointerEvent as ReactPointerEvent } from 'react';
import type { DropTarget } from './moves.js';
import type { MovingControl } from './useMoving.js';

interface Point {
  readonly x: number;
  readonly y: number;
}

export interface Dragging {
  /** Where the pointer is, while something is dragged. */
  readonly at: Point | null;
  readonly press: (resource: OutlineResource, event: ReactPointerEvent) => void;
}

/** A press becomes a drag once the pointer has gone so far, in pixels. */
const THRESHOLD = 6;

/** Drags a branch by pointer: from the press until it is let go, whatever it passes over. */
export function useDragging(control: MovingControl): Dragging {
  const [at, setAt] = useState<Point | null>(null);
  const latest = useRef(control);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => {
    latest.current = control;
  });
  useEffect(() => () => stop.current(), []);
  const press = (resource: OutlineResource, event: ReactPointerEvent): void => {
    if (event.button !== 0) return;
    const from = { x: event.clientX, y: event.clientY };
    let isDragging = false;
    const onMove = (moved: PointerEvent): void => {
      const far = Math.hypot(moved.clientX - from.x, moved.clientY - from.y) > THRESHOLD;
      if (!isDragging && far) isDragging = latest.current.begin(resource);
      if (!isDragging) return;
      moved.preventDefault();
      setAt({ x: moved.clientX, y: moved.clientY });
      latest.current.over(targetUnder(moved));
    };
    const onUp = (): void => {
      end();
      if (isDragging) latest.current.finish();
    };
    const onKeyDown = (key: KeyboardEvent): void => {
      if (!isDragging) return;
      if (key.key === 'Escape') {
        end();
        latest.current.cancel();
      } else if (/^[1-9]$/.test(key.key)) latest.current.choose(Number(key.key) - 1);
      else return;
      key.preventDefault();
      key.stopPropagation();
    };
    const end = (): void => {
      setAt(null);
      window.removeEventListener('pointermove', onMove);
      window.removeEventListener('pointerup', onUp);
      window.removeEventListener('keydown', onKeyDown, true);
    };
    stop.current = end;
    window.addEventListener('pointermove', onMove);
    window.addEventListener('pointerup', onUp);
    window.addEventListener('keydown', onKeyDown, true);
  };
  return { at, press };
}

/** What the pointer is over that a branch could be let go at. */
function targetUnder({ clientX, clientY }: PointerEvent): DropTarget | null {
  const under = document.elementFromPoint(clientX, clientY)?.closest<HTMLElement>('[data-drop]');
  return under?.dataset['drop'] ?? null;
}
