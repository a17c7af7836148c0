import { killChildren } from './processes.mjs';

/** Thrown where somebody asked for the end. */
export class Stopped extends Error {}

const controller = new AbortController();

/** Aborted once somebody asks for the end. */
export const stopSignal = controller.signal;

/** Resolves once somebody asks for the end. */
export const stopAsked = new Promise((resolve) => {
  stopSignal.addEventListener('abort', resolve, { once: true });
});

/** Listens for Ctrl+C from now on. Whoever asks a second time does not wait for anything to end in good order. */
export function listenForStop() {
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => {
      if (stopSignal.aborted) {
        killChildren();
        process.exit(130);
      }
      process.stdout.write('Stopping.\n');
      controller.abort();
    });
}

/** What some work comes to, unless somebody asks for the end before. */
export function orStopped(work) {
  if (stopSignal.aborted) return Promise.reject(new Stopped());
  return Promise.race([
    work,
    stopAsked.then(() => {
      throw new Stopped();
    }),
  ]);
}
