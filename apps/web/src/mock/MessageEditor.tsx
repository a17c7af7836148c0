import { autocompletion, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { EditorState } from '@codemirror/state';
import { drawSelection, EditorView, keymap } from '@codemirror/view';
import type { Contract } from '@isomeros/core/contract';
import { Button } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { EffectMark } from '../app/parts/EffectMark.js';
import { editorTheme } from '../app/parts/editorTheme.js';
import { completeMessage } from './messageCompletion.js';
import { firstMessage, predictMatch } from './messageText.js';

interface Props {
  readonly contract: Contract;
  readonly running: boolean;
  /** A message that another view prepared. */
  readonly firstMessage: string | null;
  readonly onSend: (message: string) => void;
}

/** The next message, written as it travels. */
export function MessageEditor({
  contract,
  running,
  firstMessage: prepared,
  onSend,
}: Props): React.JSX.Element {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const current = useRef<{ contract: Contract; onSend: (message: string) => void }>({
    contract,
    onSend,
  });
  const start = useRef(prepared ?? firstMessage(contract));
  const [message, setMessage] = useState(start.current);
  useEffect(() => {
    current.current = { contract, onSend };
  }, [contract, onSend]);
  useEffect(() => {
    if (host.current === null) return;
    const editor = new EditorView({
      parent: host.current,
      state: startState(start.current, current, setMessage),
    });
    view.current = editor;
    return () => {
      editor.destroy();
    };
  }, []);
  const foresight = useMemo(() => predictMatch(contract, message), [contract, message]);
  return (
    <>
      <header className="panel-head">
        <h2>Next message</h2>
        <span className="quiet">as it travels; Host and Content-Length are added</span>
        <span className="end">
          <kbd>Ctrl Enter</kbd>
          <Button
            type="primary"
            ghost
            disabled={!running}
            onClick={() => {
              onSend(view.current?.state.doc.toString() ?? message);
            }}
          >
            Send
          </Button>
        </span>
      </header>
      <div className="message-editor">
        <div ref={host} style={{ minHeight: 0, overflow: 'hidden' }} />
        <div className="foresight">
          {!running && <span className="wrong">The mock is stopped.</span>}
          {running && foresight.kind === 'operation' && (
            <>
              <EffectMark effect={foresight.operation.effect} />
              <span className="operation">{foresight.operation.id}</span> {foresight.operation.summary}
            </>
          )}
          {running && foresight.kind === 'none' && <span>{foresight.why}</span>}
        </div>
      </div>
    </>
  );
}

type Current = React.RefObject<{ contract: Contract; onSend: (message: string) => void }>;

function startState(message: string, current: Current, onEdit: (message: string) => void): EditorState {
  const sendKey = {
    key: 'Mod-Enter',
    run: (editor: EditorView): boolean => {
      current.current.onSend(editor.state.doc.toString());
      return true;
    },
  };
  return EditorState.create({
    doc: message,
    extensions: [
      history(),
      drawSelection(),
      keymap.of([sendKey, ...completionKeymap, ...defaultKeymap, ...historyKeymap]),
      autocompletion({
        override: [(context) => completeMessage(current.current.contract, context)],
        icons: false,
      }),
      EditorView.contentAttributes.of({ 'aria-label': 'Next message', spellcheck: 'false' }),
      EditorView.lineWrapping,
      editorTheme(),
      EditorView.updateListener.of((update) => {
        if (update.docChanged) onEdit(update.state.doc.toString());
      }),
    ],
  });
}
