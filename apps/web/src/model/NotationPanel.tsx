import type { EditorView } from '@codemirror/view';
import type { Diagnostic } from '@isomeros/core/notation';
import { useCallback, useState } from 'react';
import { useAppDispatch, useAppSelector } from '../app/store.js';
import { textEdited } from '../design/documentSlice.js';
import { type EditorContext } from './editorContext.js';
import { formatText } from './editorFeatures.js';
import { ExplainedAction } from '../app/help/Explained.js';
import { NotationEditor, type ScrollTo } from './NotationEditor.js';
import { openRename } from './renamePanel.js';
import type { LineRange } from './selectedMark.js';
import { amount } from '../app/parts/amount.js';

interface Props {
  readonly diagnostics: readonly Diagnostic[];
  readonly reveal: ScrollTo | null;
  readonly selected: LineRange | null;
  readonly context: EditorContext;
  readonly viewRef: React.RefObject<EditorView | null>;
  /** What the editor last told, in a few words. */
  readonly told: string | null;
  readonly onReveal: (line: number) => void;
  readonly onLine: (line: number) => void;
}

/** The notation with its commands and its errors. */
export function NotationPanel(props: Props): React.JSX.Element {
  const { diagnostics, reveal, selected, context, viewRef, told, onReveal, onLine } = props;
  const dispatch = useAppDispatch();
  const text = useAppSelector((state) => state.document.text);
  const [line, setLine] = useState(1);
  const onEdit = useCallback((edited: string) => dispatch(textEdited(edited)), [dispatch]);
  const moved = useCallback(
    (to: number) => {
      setLine(to);
      onLine(to);
    },
    [onLine],
  );
  const run = (command: (view: EditorView) => boolean): void => {
    if (viewRef.current !== null) command(viewRef.current);
  };
  return (
    <section className="panel" aria-label="Notation">
      <header className="panel-head">
        <h2>Notation</h2>
        <span className="quiet">
          {amount(text.split('\n').length, 'line')}, line {line}
        </span>
        {told !== null && <span role="status">{told}</span>}
        <span className="end">
          {diagnostics.length > 0 && (
            <Errors lines={diagnostics.map(({ place }) => place.line)} onLine={onReveal} />
          )}
          <ExplainedAction by="model.format" onPress={() => run(formatText(() => context))}>
            Format
          </ExplainedAction>
          <ExplainedAction by="model.rename" onPress={() => run(openRename)}>
            Rename
          </ExplainedAction>
          <kbd>F2</kbd>
        </span>
      </header>
      <div className="panel-body">
        <NotationEditor
          text={text}
          diagnostics={diagnostics}
          reveal={reveal}
          selected={selected}
          context={context}
          viewRef={viewRef}
          onEdit={onEdit}
          onLine={moved}
        />
      </div>
    </section>
  );
}

interface ErrorsProps {
  readonly lines: readonly number[];
  readonly onLine: (line: number) => void;
}

function Errors({ lines, onLine }: ErrorsProps): React.JSX.Element {
  const [first = 1] = lines;
  return (
    <button type="button" className="text-button wrong" onClick={() => onLine(first)}>
      {amount(lines.length, 'error')}, line {first}
    </button>
  );
}
