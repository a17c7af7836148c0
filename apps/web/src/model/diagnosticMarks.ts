import { StateEffect, StateField, type EditorState, type Extension, type Range } from '@codemirror/state';
import { Decoration, EditorView, WidgetType, type DecorationSet } from '@codemirror/view';
import type { Diagnostic, Fix, TextRange } from '@isomeros/core/notation';

/** Hands the diagnostics of the current text to the editor. */
export const showDiagnostics = StateEffect.define<readonly Diagnostic[]>();

/** Marks faulty words and lines, and writes what is wrong, with its mend, at the end of the line. */
export const diagnosticMarks = (): Extension => field;

const field = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    let next = marks.map(transaction.changes);
    for (const effect of transaction.effects)
      if (effect.is(showDiagnostics)) next = decorate(transaction.state, effect.value);
    return next;
  },
  provide: (marks) => EditorView.decorations.from(marks),
});

function decorate(state: EditorState, diagnostics: readonly Diagnostic[]): DecorationSet {
  const told = new Set<number>();
  const ranges = diagnostics.flatMap((diagnostic): Range<Decoration>[] => {
    const place = rangeOf(state, diagnostic.place);
    if (place === null) return [];
    const line = state.doc.lineAt(place.from);
    const word =
      place.from === place.to ? [] : [Decoration.mark({ class: 'cm-bad-word' }).range(place.from, place.to)];
    if (told.has(line.number)) return word;
    told.add(line.number);
    const widget = new DiagnosticWidget(diagnostic);
    return [
      Decoration.line({ class: 'cm-bad-line' }).range(line.from),
      ...word,
      Decoration.widget({ widget, side: 1 }).range(line.to),
    ];
  });
  return Decoration.set(ranges, true);
}

/** A place of the text as positions in the editor; `null` when the text has become shorter meanwhile. */
function rangeOf(
  state: EditorState,
  { line, column, length }: TextRange,
): { readonly from: number; readonly to: number } | null {
  if (line > state.doc.lines) return null;
  const { from, to } = state.doc.line(line);
  const start = Math.min(to, from + column - 1);
  return { from: start, to: Math.min(to, start + length) };
}

class DiagnosticWidget extends WidgetType {
  constructor(private readonly diagnostic: Diagnostic) {
    super();
  }

  override eq(other: DiagnosticWidget): boolean {
    return JSON.stringify(other.diagnostic) === JSON.stringify(this.diagnostic);
  }

  override toDOM(view: EditorView): HTMLElement {
    const element = document.createElement('span');
    element.className = 'cm-diagnostic';
    element.append(span('cm-diagnostic-text', this.diagnostic.message));
    for (const fix of this.diagnostic.fixes) {
      element.append(fixButton(view, fix));
      if (fix.means !== undefined) element.append(span('cm-diagnostic-means', fix.means));
    }
    element.append(span('cm-diagnostic-code', this.diagnostic.code));
    return element;
  }

  override ignoreEvent(): boolean {
    return true;
  }
}

function span(className: string, text: string): HTMLElement {
  const element = document.createElement('span');
  element.className = className;
  element.textContent = text;
  return element;
}

function fixButton(view: EditorView, fix: Fix): HTMLElement {
  const button = document.createElement('button');
  button.type = 'button';
  button.textContent = fix.title;
  button.addEventListener('mousedown', (event) => {
    event.preventDefault();
  });
  button.addEventListener('click', () => {
    applyFix(view, fix);
  });
  return button;
}

/** Puts the mend of a diagnostic into the text, as one step that can be undone. */
export function applyFix(view: EditorView, fix: Fix): void {
  const range = rangeOf(view.state, fix.place);
  if (range !== null)
    view.dispatch({ changes: { ...range, insert: fix.replacement }, userEvent: 'input.fix' });
  view.focus();
}
