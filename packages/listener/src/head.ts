import type { Problem } from '@isomeros/core/engine';

/** The head of a message as it comes: lines are made of it when somebody looks. */
export interface Head {
  /** The target as it was sent, in whatever form. */
  readonly target: string;
  /** `HTTP/1.1`, or what stood in its place. */
  readonly version: string;
  /** Names and values in turn. */
  readonly headers: readonly string[];
  /** What is wrong with it, whatever it asks for. */
  readonly problem: Problem | null;
}
