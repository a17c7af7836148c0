import type { ContractDifference } from '@isomeros/core/contract';
import type { ModelEdit } from '@isomeros/core/model';
import { useEffect, useRef, useState } from 'react';
import { useAppSelector, useAppStore } from '../app/store.js';
import type { ConsequenceAnswer, ConsequenceQuestion } from './consequenceMessages.js';

/** What follows is worked out once the typing pauses, in a worker of its own: typing never waits for it. */
const QUIET_MS = 700;

/** What would come and go by each of some edits, by the edit as JSON. */
export function useConsequences(edits: readonly ModelEdit[]): ReadonlyMap<string, ContractDifference | null> {
  const store = useAppStore();
  const outline = useAppSelector((state) => state.design.outline);
  const [known, setKnown] = useState<ReadonlyMap<string, ContractDifference | null>>(new Map());
  const worker = useRef<Worker | null>(null);
  const number = useRef(0);
  const wanted = JSON.stringify(edits);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [],
  );
  useEffect(() => {
    const asked = JSON.parse(wanted) as readonly ModelEdit[];
    if (asked.length === 0) return;
    const later = setTimeout(() => {
      const { text, design, choices } = store.getState().design;
      if (design === null) return;
      worker.current ??= new Worker(new URL('./consequence.worker.ts', import.meta.url), { type: 'module' });
      const mine = ++number.current;
      worker.current.onmessage = ({ data }: MessageEvent<ConsequenceAnswer>) => {
        if (data.number !== number.current) return;
        setKnown(new Map(asked.map((edit, at) => [JSON.stringify(edit), data.differences[at] ?? null])));
      };
      const question: ConsequenceQuestion = {
        number: mine,
        text,
        identities: design.identities,
        choices,
        edits: asked,
      };
      worker.current.postMessage(question);
    }, QUIET_MS);
    return () => {
      clearTimeout(later);
    };
  }, [wanted, outline, store]);
  return known;
}
