import type { Contract } from '@isomeros/core/contract';

/** What texts in CommonMark are shown and written with. */
export interface TextsProps {
  readonly contract: Contract;
  readonly operations: ReadonlySet<string>;
  readonly onOperation: (operation: string) => void;
}
