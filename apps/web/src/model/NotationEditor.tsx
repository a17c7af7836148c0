import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { bracketMatching, indentOnInput, indentUnit } from '@codemirror/language';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState, Transaction } from '@codemirror/state';
import {
  drawSelection,
  EditorView,
  highlightActiveLine,
  highlightActiveLineGutter,
  keymap,
  lineNumbers,
} from '@codemirror/view';
import type { Diagnostic } from '@isomeros/core/notation';
import { useEffect, useRef } from 'react';
import { editorTheme } from '../app/parts/editorTheme.js';
import { diagnosticMarks, showDiagnostics } from './diagnosticMarks.js';
import { type EditorContext } from './editorContext.js';
import { editorFeatures } from './editorFeatures.js';
import { minimalChange } from './minimalChange.js';
import { selectedMark, showSelected, type LineRange } from './selectedMark.js';
import { notationLanguage } from './notationLanguage.js';
import { typedIndent } from './typedIndent.js';
import { firstStatementsOffer } from './firstStatementsOffer.js';

/** A line to bring into view and put the cursor on; a new object asks again. */
export interface ScrollTo {
  readonly line: number;
  /** Whether the editor is to be typed in next. */
  readonly focus: boolean;
}

interface Props {
  readonly text: string;
  readonly diagnostics: readonly Diagnostic[];
  readonly reveal: ScrollTo | null;
  readonly onEdit: (text: string) => void;
  readonly onLine: (line: number) => void;
  readonly context: EditorContext;
  /** The statement that is selected, as its first and last line. */
  readonly selected: LineRange | null;
  /** Set to the editor while there is one, for commands from outside. */
  readonly viewRef?: React.RefObject<EditorView | null>;
}

/** The editor of the notation. It keeps its own text; `text` replaces it only when it differs. */
export function NotationEditor(props: Props): React.JSX.Element {
  const { text, diagnostics, reveal, onEdit, onLine, context, viewRef, selected } = props;
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const handlers = useRef({ onEdit, onLine, context });
  const firstText = useRef(text);
  useEffect(() => {
    handlers.current = { onEdit, onLine, context };
  }, [onEdit, onLine, context]);
  useEffect(() => {
    if (host.current === null) return;
    const editor = new EditorView({ parent: host.current, state: startState(firstText.current, handlers) });
    view.current = editor;
    if (viewRef !== undefined) viewRef.current = editor;
    return () => {
      view.current = null;
      if (viewRef !== undefined) viewRef.current = null;
      editor.destroy();
    };
  }, [viewRef]);
  useEffect(() => {
    const editor = view.current;
    const change = editor === null ? null : minimalChange(editor.state.doc.toString(), text);
    if (change !== null) editor?.dispatch({ changes: change });
  }, [text]);
  useCalmDiagnostics(view, diagnostics);
  useEffect(() => {
    view.current?.dispatch({ effects: showSelected.of(selected) });
  }, [selected]);
  useEffect(() => {
    const editor = view.current;
    if (editor === null || reveal === null) return;
    const { from } = editor.state.doc.line(Math.max(1, Math.min(reveal.line, editor.state.doc.lines)));
    editor.dispatch({
      selection: { anchor: from },
      effects: EditorView.scrollIntoView(from, { y: 'center' }),
    });
    if (reveal.focus) editor.focus();
  }, [reveal]);
  return <div ref={host} className="notation-editor" />;
}

/** A line that is being typed is not called wrong before the typing rests for so long. */
const CALM_MS = 450;
/** A word that the cursor still stands at is not finished; it is called wrong only after so long. */
const UNFINISHED_MS = 1_500;

/** Whether what is wrong ends where the cursor stands, in UTF-16 code units from the beginning of the line. */
const isUnfinished = ({ place }: Diagnostic, line: number, column: number): boolean =>
  place.line === line && place.column - 1 <= column && place.column - 1 + place.length >= column;

/** Shows mistakes at once, those of the line under the cursor when the typing rests. */
function useCalmDiagnostics(
  view: React.RefObject<EditorView | null>,
  diagnostics: readonly Diagnostic[],
): void {
  const shown = useRef<{ readonly in: EditorView | null; readonly json: string }>({ in: null, json: '[]' });
  useEffect(() => {
    const editor = view.current;
    if (editor === null) return;
    const show = (some: readonly Diagnostic[]): void => {
      if (view.current !== editor) return;
      shown.current = { in: editor, json: JSON.stringify(some) };
      editor.dispatch({ effects: showDiagnostics.of(some) });
    };
    if (shown.current.in === editor && shown.current.json === JSON.stringify(diagnostics)) return;
    const { head } = editor.state.selection.main;
    const { number, from } = editor.state.doc.lineAt(head);
    const elsewhere = diagnostics.filter(({ place }) => place.line !== number);
    show(elsewhere);
    if (elsewhere.length === diagnostics.length) return;
    const finished = diagnostics.filter((one) => !isUnfinished(one, number, head - from));
    const later = [
      setTimeout(() => show(finished), CALM_MS),
      setTimeout(() => show(diagnostics), finished.length === diagnostics.length ? CALM_MS : UNFINISHED_MS),
    ];
    return () => {
      later.forEach(clearTimeout);
    };
  }, [view, diagnostics]);
}

const isByUser = (transaction: Transaction): boolean =>
  transaction.docChanged && transaction.annotation(Transaction.userEvent) !== undefined;

type Handlers = React.RefObject<Pick<Props, 'onEdit' | 'onLine' | 'context'>>;

function startState(text: string, handlers: Handlers): EditorState {
  return EditorState.create({
    doc: text,
    extensions: [
      lineNumbers(),
      highlightActiveLineGutter(),
      history(),
      drawSelection(),
      EditorState.lineSeparator.of('\n'),
      indentUnit.of('  '),
      indentOnInput(),
      bracketMatching(),
      highlightActiveLine(),
      highlightSelectionMatches(),
      search({ top: true }),
      keymap.of([...defaultKeymap, ...historyKeymap, ...searchKeymap, indentWithTab]),
      notationLanguage(),
      typedIndent(),
      firstStatementsOffer(),
      editorFeatures(() => handlers.current.context),
      diagnosticMarks(),
      selectedMark(),
      EditorView.lineWrapping,
      editorTheme(),
      EditorView.contentAttributes.of({ 'aria-label': 'Notation of the model', spellcheck: 'false' }),
      EditorView.updateListener.of((update) => {
        if (update.docChanged) handlers.current.onEdit(update.state.doc.toString());
        // What is changed from outside moves no cursor, and selects nothing else.
        if (update.selectionSet || update.transactions.some(isByUser)) {
          handlers.current.onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
        }
      }),
    ],
  });
}
