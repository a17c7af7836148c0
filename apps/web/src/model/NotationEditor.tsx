import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { bracketMatching, indentOnInput, indentUnit } from '@codemirror/language';
import { highlightSelectionMatches, search, searchKeymap } from '@codemirror/search';
import { EditorState } from '@codemirror/state';
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
import { notationLanguage } from './notationLanguage.js';

/** A line to bring into view and put the cursor on; a new object asks again. */
export interface Reveal {
  readonly line: number;
}

interface Props {
  readonly text: string;
  readonly diagnostics: readonly Diagnostic[];
  readonly reveal: Reveal | null;
  readonly onEdit: (text: string) => void;
  readonly onLine: (line: number) => void;
}

/** The editor of the notation. It keeps its own text; `text` replaces it only when it differs. */
export function NotationEditor({ text, diagnostics, reveal, onEdit, onLine }: Props): React.JSX.Element {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const handlers = useRef({ onEdit, onLine });
  const firstText = useRef(text);
  useEffect(() => {
    handlers.current = { onEdit, onLine };
  }, [onEdit, onLine]);
  useEffect(() => {
    if (host.current === null) return;
    const editor = new EditorView({ parent: host.current, state: startState(firstText.current, handlers) });
    view.current = editor;
    return () => {
      view.current = null;
      editor.destroy();
    };
  }, []);
  useEffect(() => {
    const editor = view.current;
    if (editor === null || editor.state.doc.toString() === text) return;
    editor.dispatch({ changes: { from: 0, to: editor.state.doc.length, insert: text } });
  }, [text]);
  useEffect(() => {
    view.current?.dispatch({ effects: showDiagnostics.of(diagnostics) });
  }, [diagnostics]);
  useEffect(() => {
    const editor = view.current;
    if (editor === null || reveal === null) return;
    const { from } = editor.state.doc.line(Math.max(1, Math.min(reveal.line, editor.state.doc.lines)));
    editor.dispatch({
      selection: { anchor: from },
      effects: EditorView.scrollIntoView(from, { y: 'center' }),
    });
    editor.focus();
  }, [reveal]);
  return <div ref={host} className="notation-editor" />;
}

type Handlers = React.RefObject<Pick<Props, 'onEdit' | 'onLine'>>;

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
      diagnosticMarks(),
      EditorView.lineWrapping,
      editorTheme(),
      EditorView.contentAttributes.of({ 'aria-label': 'Notation of the model', spellcheck: 'false' }),
      EditorView.updateListener.of((update) => {
        if (update.docChanged) handlers.current.onEdit(update.state.doc.toString());
        if (update.selectionSet || update.docChanged) {
          handlers.current.onLine(update.state.doc.lineAt(update.state.selection.main.head).number);
        }
      }),
    ],
  });
}
