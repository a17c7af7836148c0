import type { Progress, Steps } from '@isomeros/core/model';

/** So long others wait for a slice of work at most, but for what one step takes. */
const SLICE_MS = 8;

/** Another turn of the loop: whatever came in meanwhile is answered first. */
const nextTurn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Whoever waits for work is told how far it is, and can end it. */
export interface Watching {
  readonly onProgress?: ((progress: Progress) => void) | undefined;
  readonly signal?: AbortSignal | undefined;
}

/** Runs work in slices, between which everything else goes on. Rejects with the reason of the signal where it ends it. */
export async function inSlices<T>(steps: Steps<T>, { onProgress, signal }: Watching = {}): Promise<T> {
  for (;;) {
    const end = performance.now() + SLICE_MS;
    do {
      const step = steps.next();
      if (step.done === true) return step.value;
      onProgress?.(step.value);
    } while (performance.now() < end);
    await nextTurn();
    signal?.throwIfAborted();
  }
}
