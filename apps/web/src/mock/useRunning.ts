import { useState } from 'react';
import { isAborted } from '../app/api/client.js';

/** Something that the server does, and that whoever asked for it can end. */
export interface Cancellable<T> {
  readonly unwrap: () => Promise<T>;
  readonly abort: () => void;
}

export interface Running {
  /** What goes on now. */
  readonly work: Cancellable<unknown> | null;
  /** Waits for something; `null` where it was cancelled. Rejects with what it rejects with otherwise. */
  readonly run: <T>(work: Cancellable<T>) => Promise<T | null>;
}

/** What a page waits for, so that it can show how far it is. */
export function useRunning(): Running {
  const [work, setWork] = useState<Cancellable<unknown> | null>(null);
  const run = async <T>(begun: Cancellable<T>): Promise<T | null> => {
    setWork(begun);
    try {
      return await begun.unwrap();
    } catch (error) {
      if (isAborted(error)) return null;
      throw error;
    } finally {
      setWork(null);
    }
  };
  return { work, run };
}
