import type { Progress, Steps } from '@isomeros/core/model';

/** So long others wait for a slice of work at most, but for what one step takes. */
const SLICE_MS = 8;

/** Another turn of the loop: whatever came in meanwhile is answered first. */
const nextTurn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/** Runs work in slices, between which everything else goes on. */
export async function inSlices<T>(steps: Steps<T>, onProgress?: (progress: Progress) => void): Promise<T> {
  for (;;) {
    const end = performance.now() + SLICE_MS;
    do {
      const step = steps.next();
      if (step.done === true) return step.value;
      onProgress?.(step.value);
    } while (performance.now() < end);
    await nextTurn();
  }
}
