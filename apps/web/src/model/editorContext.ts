import type { EditorState } from '@codemirror/state';
import type { Impact } from '../design/derivation/impact.js';

/** What the editor asks of the page. */
export interface EditorContext {
  /** What the statement at a line implies; `null` where there is none, or nothing was derived yet. */
  readonly implied: (line: number) => Promise<Impact | null>;
  /** Tells the person something in a few words. */
  readonly tell: (message: string) => void;
}

/** Line and column, both from 1, of a position. */
export function placeOf(
  state: EditorState,
  position: number,
): { readonly line: number; readonly column: number } {
  const { number, from } = state.doc.lineAt(position);
  return { line: number, column: position - from + 1 };
}
