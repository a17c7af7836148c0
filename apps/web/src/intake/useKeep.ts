import type { NewDesign, RunningIntake } from '@isomeros/api';
import { useCallback, useEffect, useRef, useState } from 'react';
import { api, refusalText } from '../app/api/client.js';
import { serverApi } from '../app/api/serverApi.js';
import { useAppDispatch } from '../app/store.js';

/** So often it is asked how far an intake is. */
const ASKED_EVERY_MS = 150;

export interface UsedKeep {
  /** The share that is done while a source is kept as a design; `null` while none is. */
  readonly done: number | null;
  readonly problem: string | null;
  /** Answers the id of the design, or `null` where none was made. */
  readonly keep: (wanted: NewDesign) => Promise<string | null>;
  readonly cancel: () => void;
}

/** Lets the server read a source as a design, and follows how far it is. */
export function useKeep(): UsedKeep {
  const dispatch = useAppDispatch();
  const [done, setDone] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  /** Counts what was begun or cancelled: whatever began before is nobody's any more. */
  const turn = useRef(0);
  const cancel = useCallback((): void => {
    turn.current++;
    setDone(null);
  }, []);
  useEffect(() => cancel, [cancel]);
  const keep = async (wanted: NewDesign): Promise<string | null> => {
    const mine = ++turn.current;
    const isWanted = (): boolean => turn.current === mine;
    setProblem(null);
    setDone(0);
    try {
      const begun = await api.beginIntake(wanted);
      const ended = await untilEnd(begun, (share) => {
        if (isWanted()) setDone(share);
        return isWanted();
      });
      await api.removeIntake(begun.id);
      if (!isWanted()) return null;
      setDone(null);
      setProblem(ended.problem?.detail ?? null);
      if (ended.design !== null) dispatch(serverApi.util.invalidateTags(['Designs']));
      return ended.design;
    } catch (error) {
      if (!isWanted()) return null;
      setDone(null);
      setProblem(refusalText(error));
      return null;
    }
  };
  return { done, problem, keep, cancel };
}

/** Asks how far one is until it has ended, or `onProgress` says that nobody wants to know any more. */
async function untilEnd(begun: RunningIntake, onProgress: (done: number) => boolean): Promise<RunningIntake> {
  for (let intake = begun; ; intake = await api.readIntake(begun.id)) {
    if (intake.design !== null || intake.problem !== null || !onProgress(intake.done)) return intake;
    await new Promise((resolve) => setTimeout(resolve, ASKED_EVERY_MS));
  }
}
