import type { TextRange } from './diagnostics.js';

/** Where a statement stands: its own line, and the last line of the block it opens. */
export interface StatementPlace extends TextRange {
  readonly endLine: number;
}
