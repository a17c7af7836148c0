import type { SourceText } from './sources.js';

let pending: SourceText | null = null;

/** Hands a file that was opened elsewhere over to the intake. */
export const keepSource = (source: SourceText): void => {
  pending = source;
};

/** The file handed over, once. */
export function takeSource(): SourceText | null {
  const taken = pending;
  pending = null;
  return taken;
}
