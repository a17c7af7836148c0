import type { EditorState, Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';

const INDENT = 2;
/** A life cycle stands below a choice, and is indented further. */
const MAY_GO_DEEPER = /:\s*choice\b|->/;

/** Whether a space typed here would only repeat the indent that the editor made by itself. */
export function repeatsIndent(state: EditorState, position: number): boolean {
  const line = state.doc.lineAt(position);
  if (position !== line.to || line.length < INDENT || line.text.trim() !== '' || line.number === 1)
    return false;
  return !MAY_GO_DEEPER.test(state.doc.line(line.number - 1).text);
}

/** Whoever indents by hand after Enter gets the indent once, not twice. */
export const typedIndent = (): Extension =>
  EditorView.inputHandler.of(
    (view, from, to, text) => text === ' ' && from === to && repeatsIndent(view.state, from),
  );
