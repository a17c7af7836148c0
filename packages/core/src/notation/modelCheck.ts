import type { Block } from './block.js';
import type { DiagnosticCode } from './diagnostics.js';

/** What the checks over a whole text share. */
export interface ModelCheck {
  readonly entities: ReadonlyMap<string, Block>;
  readonly values: ReadonlyMap<string, Block>;
  report(id: string, code: DiagnosticCode, message: string, word?: string, replacement?: string): void;
  /** What a name that is not there may have meant, while few things are wrong. */
  nearest(name: string, candidates: Iterable<string>): string | null;
}
