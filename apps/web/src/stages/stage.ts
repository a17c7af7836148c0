import type { RootState } from '../app/store.js';

/** A step of the work on a design. */
export interface Stage {
  /** The last part of its address. */
  readonly path: string;
  readonly name: string;
  /** What it is for, in a few words. */
  readonly means: string;
  /** What to do there next, while a design says next to nothing. */
  readonly next: string;
  /** Its page, read when it is opened first. */
  readonly load: () => Promise<React.ComponentType>;
  /** What there is, in numbers: it stands under the name while a design is open. */
  readonly figure: (state: RootState, design: string) => string;
}
