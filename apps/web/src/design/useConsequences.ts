import { useEffect, useRef, useState } from 'react';
import { useAppSelector, useAppStore } from '../app/store.js';
import type {
  Consequence,
  ConsequenceAnswer,
  ConsequenceQuestion,
  LoadReleases,
  Step,
} from './consequenceMessages.js';
import type { DesignReleases } from './baselineReleases.js';

/** What follows is worked out once the typing pauses, in a worker of its own: typing never waits for it. */
const QUIET_MS = 700;

/** What would come and go by each of some steps, by the step as JSON. */
export function useConsequences(
  steps: readonly Step[],
  quiet = QUIET_MS,
): ReadonlyMap<string, Consequence | null> {
  const store = useAppStore();
  const outline = useAppSelector((state) => state.design.outline);
  const [known, setKnown] = useState<ReadonlyMap<string, Consequence | null>>(new Map());
  const worker = useRef<Worker | null>(null);
  const held = useRef<DesignReleases | null>(null);
  const number = useRef(0);
  const wanted = JSON.stringify(steps);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
      held.current = null;
    },
    [],
  );
  useEffect(() => {
    const asked = JSON.parse(wanted) as readonly Step[];
    if (asked.length === 0) return;
    const later = setTimeout(() => {
      const { text, design, choices, arrangement } = store.getState().design;
      if (design === null) return;
      worker.current ??= new Worker(new URL('./consequence.worker.ts', import.meta.url), { type: 'module' });
      const { held: releases } = store.getState().releases;
      if (held.current !== releases) {
        held.current = releases;
        worker.current.postMessage({ held: releases } satisfies LoadReleases);
      }
      const mine = ++number.current;
      worker.current.onmessage = ({ data }: MessageEvent<ConsequenceAnswer>) => {
        if (data.number !== number.current) return;
        setKnown(new Map(asked.map((step, at) => [JSON.stringify(step), data.consequences[at] ?? null])));
      };
      const question: ConsequenceQuestion = {
        number: mine,
        design: design.id,
        text,
        identities: design.identities,
        choices,
        arrangement,
        steps: asked,
      };
      worker.current.postMessage(question);
    }, quiet);
    return () => {
      clearTimeout(later);
    };
  }, [wanted, outline, quiet, store]);
  return known;
}
