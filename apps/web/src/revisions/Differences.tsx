import { unifiedMergeView } from '@codemirror/merge';
import { EditorState } from '@codemirror/state';
import { EditorView, lineNumbers } from '@codemirror/view';
import type { Choices } from '@isomeros/core/arrangement';
import { useEffect, useRef } from 'react';
import { editorTheme } from '../app/parts/editorTheme.js';
import { notationLanguage } from '../model/notationLanguage.js';
import { choiceDifferences } from './choiceDifferences.js';

interface State {
  readonly text: string;
  readonly choices: Choices | null;
}

interface Props {
  readonly shown: State;
  readonly other: State;
  /** Whether what is shown is the older of the two. */
  readonly isOlder: boolean;
}

/** What one state has and another has not: lines of the text in place, decisions as a list. */
export function Differences({ shown, other, isOlder }: Props): React.JSX.Element {
  const host = useRef<HTMLDivElement>(null);
  const [before, after] = isOlder ? [shown, other] : [other, shown];
  useEffect(() => {
    if (host.current === null) return;
    const view = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: after.text,
        extensions: [
          lineNumbers(),
          EditorState.readOnly.of(true),
          EditorView.lineWrapping,
          notationLanguage(),
          editorTheme(),
          EditorView.contentAttributes.of({ 'aria-label': 'The text with its differences' }),
          unifiedMergeView({
            original: before.text,
            mergeControls: false,
            gutter: true,
            highlightChanges: true,
            collapseUnchanged: { margin: 3, minSize: 6 },
            diffConfig: { timeout: 500 },
          }),
        ],
      }),
    });
    return () => {
      view.destroy();
    };
  }, [before.text, after.text]);
  const decided = choiceDifferences(before.choices, after.choices);
  return (
    <>
      {decided.length > 0 && (
        <ul className="decided">
          {decided.map(({ what, of, was, is }) => (
            <li key={`${of ?? ''} ${what}`}>
              <span className="strong">
                {what}
                {of !== null && `, ${of}`}
              </span>{' '}
              <del>{was}</del> <ins>{is}</ins>
            </li>
          ))}
        </ul>
      )}
      {before.text === after.text && (
        <p className="empty-note">{decided.length > 0 ? 'The text is the same.' : 'Nothing differs.'}</p>
      )}
      <div className="panel-body differences" ref={host} hidden={before.text === after.text} />
    </>
  );
}
